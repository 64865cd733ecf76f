package contour

import (
	"earlychorus/core/audio"
	"earlychorus/core/music"
)

// Take is a take being listened to as it comes in, block by block. What costs much is
// worked out once, of sound that no later block changes, and kept: so the end of a take
// is soon heard, however long it is. What is heard does not depend on where the blocks
// were cut.
type Take struct {
	intake
	ear      Ear
	levels   levelTrack
	find     *finder
	fine     *refiner
	envelope Envelope
	alone    bool // pitch is all that is asked: neither of the following is heard
	loudness Loudness
	clipped  clipping
	kept     kept
}

// Open begins to listen to a take. Errors: ErrRate.
func (e Ear) Open(rate int) (*Take, error) { return e.open(rate, false) }

func (e Ear) open(rate int, alone bool) (*Take, error) {
	if !rateHeard(rate) {
		return nil, ErrRate
	}
	t := &Take{
		ear:      e,
		intake:   e.newIntake(rate, !alone),
		alone:    alone,
		envelope: emptyEnvelope(float64(rate)),
		loudness: emptyLoudness(float64(rate)),
	}
	t.find, t.fine = t.l.newFinder(), newRefiner(nil, t.l.rate)
	return t, nil
}

// Expect says how long the take will be, where that is known: it may be longer.
func (t *Take) Expect(length music.Seconds) {
	samples := int(float64(length) * float64(t.sound.Rate))
	t.expect(samples)
	t.envelope.reserve(samples)
}

// Hear takes the next samples in, which must not be changed afterwards. After End it
// takes none.
func (t *Take) Hear(samples []float64) {
	if t.ended || len(samples) == 0 {
		return
	}
	if t.sound.Samples == nil {
		t.envelope.reserve(len(samples))
	}
	t.hear(samples)
	if !t.alone {
		t.clipped.hear(samples)
	}
	t.advance()
}

// End says that nothing more comes.
func (t *Take) End() {
	if t.ended {
		return
	}
	t.end()
	t.advance()
}

// advance leads the tracks on to the end of what came in.
func (t *Take) advance() {
	t.envelope.advance(t.sound.Samples, 0)
	t.levels.advance(t.envelope)
	if !t.alone {
		t.loudness.advance(t.sound.Samples)
	}
	t.fine.x = t.l.x
}

// Sound is what came in so far.
func (t *Take) Sound() audio.Mono { return t.sound }

// Envelope is the fine levels of what came in so far; Bright, those of its upper
// harmonics, a filter's half less far.
func (t *Take) Envelope() Envelope { return t.envelope }

// Bright is described at Envelope.
func (t *Take) Bright() Envelope { return t.bright.envelope }

// Loudness is that of what came in so far.
func (t *Take) Loudness() Loudness { return t.loudness }

// ClippedRatio is the share of the samples that are stuck at full scale.
func (t *Take) ClippedRatio() float64 {
	return float64(t.clipped.stuck) / max(1, float64(len(t.sound.Samples)))
}

// longestReach is how far from its moment anything is asked of a frame: half the window
// of half the lowest pitch, and the frame that is listened to together with it.
const longestReach music.Seconds = 0.16

// certain is how many frames no later block changes.
func (t *Take) certain() int {
	if t.ended {
		return len(t.levels.levels)
	}
	settled := music.Seconds(float64(len(t.l.x)) / t.l.rate)
	return max(0, min(len(t.levels.levels), Index(settled-longestReach)))
}

// Track returns one frame each Hop of what came in, as far as no later block changes
// it; after End, of all of it. It is empty for sound shorter than one frame. asker stops it
// early with its error.
//
// Candidates come from the normalised square difference function over windows
// that follow the note, weighed as in probabilistic YIN (M. Mauch and S. Dixon,
// ICASSP 2014); one best path over the whole take (Viterbi) chooses among them;
// the chosen pitch is refined by the phases of its harmonics.
//
// Before the end the path is the likeliest of what is known; what it asked on its way is
// kept, so that the last asking, which asks nearly the same, finds it answered.
func (t *Take) Track(asker audio.Asker) (Contour, error) {
	levels := t.levels.levels[:t.certain()]
	quiet := t.find.learnRest(levels)
	table, err := t.find.listen(asker, levels, quiet)
	if err != nil {
		return Contour{}, err
	}
	frames := make([]Frame, len(levels))
	for n, k := range dropFlickers(bestPath(table, quiet.threshold)) {
		frames[n].Level = levels[n]
		if k >= 0 {
			c := table[n].candidates[k]
			frames[n].Pitch, frames[n].Confidence = c.pitch, max(0, min(1, c.clarity))
		}
	}
	t.fine.settleOctaves(frames, t.ear, quiet)
	t.fine.settleFlips(frames)
	t.refine(frames)
	return Contour{Frames: frames, Bursts: t.clicks.bursts()}, nil
}
