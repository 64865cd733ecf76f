package ear

import (
	"math"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// plateau is a stretch of sound at one pitch, without a stop.
type plateau struct {
	from, to       int // frames, to excluded
	Onset, Release music.Seconds
	pitch          music.Cents // median, from A4 = 440
	starts         Start
	level          music.Decibels // median
	doubt          float64        // 0 to 1: how little tells that it begins anew
	theirs         bool           // somebody else's, on the player's pitch, which was cut off
	hidden         music.Seconds  // from its onset, while another pitch rang over it
}

// Start is how a note follows what was before it.
type Start string

const (
	AfterSilence Start = "silence"
	ByTongue     Start = "tongue" // a dip, too short to be a silence
	BySlur       Start = "slur"   // another pitch, or a beat, without a dip
)

func (p plateau) length() music.Seconds { return p.Release - p.Onset }

const (
	// A pitch this far from the plateau so far, for this long, is a new one.
	newPlateau      music.Cents = 80
	plateauFrames               = 4 // 40 ms, the shortest break worth naming
	flickerFrames               = 2 // silences up to 20 ms are the tracker's
	referenceFrames             = 20
	longEnough                  = music.Seconds(0.15)
	standardPitch               = music.StandardA4
)

// findPlateaus cuts the voiced frames into stretches of one pitch, and these
// where the tongue makes a dip at least so deep.
func (l *listening) findPlateaus(dip music.Decibels) []plateau {
	b := builder{
		listening: l,
		quiet:     l.quiet(),
		dip:       dip,
	}
	for n, f := range b.contour.Frames {
		b.hear(n, f)
	}
	b.close()
	for n := range b.done {
		b.refineEdges(n)
	}
	var out []plateau
	for _, p := range b.done {
		// The edges of an echo or a tap may meet: then it was never a note.
		if p.length() > 0 {
			for _, part := range b.cutAtStops(p) {
				for _, note := range b.cutAtTongue(part) {
					out = append(out, b.withOwnPitch(note, p))
				}
			}
		}
	}
	return out
}

// withOwnPitch is a part of a plateau at the pitch that it has itself: in a room that rings,
// one pitch may glide into the next, and only the tongue parts them.
func (b *builder) withOwnPitch(part, whole plateau) plateau {
	if part.from == whole.from && part.to == whole.to {
		return part
	}
	var cents []float64
	for _, f := range b.contour.Frames[part.from:part.to] {
		if f.Voiced() {
			cents = append(cents, float64(music.Between(standardPitch, f.Pitch)))
		}
	}
	if len(cents) > 0 {
		part.pitch = music.Cents(dsp.Median(cents))
	}
	return part
}

type builder struct {
	*listening
	quiet   music.Decibels
	dip     music.Decibels
	done    []plateau
	frames  []int     // frames of the plateau being built
	pitches []float64 // their pitches, cents
	lowest  float64   // of these
	highest float64
	away    []int // frames that have left it, not yet long enough to be one
	awayAt  []float64
}

func (b *builder) hear(n int, f contour.Frame) {
	if !f.Voiced() {
		if last := b.last(); last >= 0 && n-last > flickerFrames {
			b.close()
		}
		return
	}
	cents := float64(music.Between(standardPitch, f.Pitch))
	if b.goesOnAt(cents) {
		b.away, b.awayAt = nil, nil // a short excursion is the tracker's or the air's
		if len(b.frames) == 0 {
			b.lowest, b.highest = cents, cents
		}
		b.frames, b.pitches = append(b.frames, n), append(b.pitches, cents)
		b.lowest, b.highest = min(b.lowest, cents), max(b.highest, cents)
		return
	}
	b.away, b.awayAt = append(b.away, n), append(b.awayAt, cents)
	if len(b.away) >= plateauFrames {
		away, at := b.away, b.awayAt
		b.close()
		for k := range away {
			b.hear(away[k], contour.Frame{Pitch: music.Cents(at[k]).Above(standardPitch)})
		}
	}
}

func (b *builder) last() int {
	if len(b.away) > 0 {
		return b.away[len(b.away)-1]
	}
	if len(b.frames) > 0 {
		return b.frames[len(b.frames)-1]
	}
	return -1
}

// goesOnAt reports whether a pitch belongs to the plateau being built. Of one that keeps its
// pitch it need not be asked where it has been lately: nowhere far.
func (b *builder) goesOnAt(cents float64) bool {
	switch {
	case len(b.frames) == 0:
		return true
	case cents-b.lowest <= float64(newPlateau) && b.highest-cents <= float64(newPlateau):
		return true
	}
	return math.Abs(cents-b.reference()) <= float64(newPlateau)
}

// reference is where the plateau has been lately, so that a drift is followed.
func (b *builder) reference() float64 {
	return dsp.Median(b.pitches[max(0, len(b.pitches)-referenceFrames):])
}

func (b *builder) close() {
	if len(b.frames) >= plateauFrames {
		from, to := b.frames[0], b.frames[len(b.frames)-1]+1
		b.done = append(b.done, plateau{
			from:    from,
			to:      to,
			Onset:   contour.Time(from) - contour.Hop/2,
			Release: contour.Time(to) - contour.Hop/2,
			pitch:   music.Cents(dsp.Median(b.pitches)),
		})
	}
	b.frames, b.pitches, b.away, b.awayAt = nil, nil, nil, nil
}

// Edges that border on silence are put where the loudness crosses, which is
// sharper than where periodicity is lost.
const (
	edgeReach  = music.Seconds(0.08)
	edgeBelow  = music.Decibels(20)
	endBelow   = music.Decibels(16) // a note rings on when its player has ended it
	bodyBelow  = music.Decibels(6)
	edgeWindow = music.Seconds(0.006) // at least; a low note's period otherwise
	// A fall from bodyBelow to endBelow that takes longer is the room's, or the
	// tube ringing on.
	fallsWithin = music.Seconds(0.016)
	// One that takes longer than any room rings is the player fading.
	longestRing = music.Seconds(1)
	aboveQuiet  = music.Decibels(6)
	quietShare  = 0.1
)

// window returns the stretch over which a pitch's level is read.
func window(pitch music.Cents) music.Seconds {
	return max(edgeWindow, 1/music.Seconds(pitch.Above(standardPitch)))
}

func (b *builder) refineEdges(n int) {
	p := &b.done[n]
	w := window(p.pitch)
	level := b.level(*p)
	threshold := max(level-edgeBelow, min(level-bodyBelow, b.quiet+aboveQuiet))
	if n == 0 || p.from-b.done[n-1].to > flickerFrames && !b.goesOn(b.done[n-1], *p) {
		p.starts = AfterSilence
		p.Onset = b.fine.Crossing(p.Onset, edgeReach, w, threshold, true)
	} else {
		p.Onset = b.meeting(b.done[n-1], *p)
		p.starts = b.joint(b.done[n-1], *p, w)
		b.done[n-1].Release = p.Onset
	}
	if n == len(b.done)-1 || b.done[n+1].from-p.to > flickerFrames && !b.goesOn(*p, b.done[n+1]) {
		last := *p
		length := p.to - p.from
		last.from, last.to = p.from+length*6/10, max(p.from+length*6/10+1, p.from+length*17/20)
		level = b.level(last) // a fading note ends softer than it began; what rings on comes after
		until := p.Release + edgeReach
		if n+1 < len(b.done) { // the next one's beginning is not this one's end
			until = min(until, max(p.Release, b.done[n+1].Onset-edgeReach/2))
		}
		p.Release = b.ending(*p, until, level, max(threshold, level-endBelow))
	}
}

// goesOn reports whether the sound goes on from one pitch to another though for a
// moment none is heard.
func (b *builder) goesOn(before, after plateau) bool {
	if before.to >= after.from || after.from-before.to > longestChange {
		return false
	}
	w := max(window(before.pitch), window(after.pitch))
	lowest := music.Decibels(0)
	for at := contour.Time(before.to); at < contour.Time(after.from); at += tongueStep {
		lowest = min(lowest, b.fine.Level(at, w))
	}
	return lowest > min(b.level(before), b.level(after))-slurFalls
}

// longestChange is how many frames may pass between two slurred pitches.
const longestChange = 12

// slurFalls is how far the loudness may fall between two slurred pitches.
const slurFalls = music.Decibels(13)

// level is a plateau's usual loudness.
func (b *builder) level(p plateau) music.Decibels {
	levels := make([]float64, 0, p.to-p.from)
	for _, f := range b.contour.Frames[p.from:p.to] {
		levels = append(levels, float64(f.Level))
	}
	return music.Decibels(dsp.Median(levels))
}

// withLevels notes how loud each plateau is.
func (l *listening) withLevels(plateaus []plateau) []plateau {
	b := builder{listening: l}
	for n := range plateaus {
		plateaus[n].level = b.level(plateaus[n])
	}
	return plateaus
}

// quiet is how loud the take is where nothing sounds: it is asked once for every note, and
// worked out once for a contour.
func (l *listening) quiet() music.Decibels {
	if len(l.contour.Frames) == 0 {
		return contour.Silence
	}
	if first := &l.contour.Frames[0]; l.quietOf != first {
		levels := make([]float64, len(l.contour.Frames))
		for n, f := range l.contour.Frames {
			levels[n] = float64(f.Level)
		}
		l.quietOf, l.quietest = first, music.Decibels(dsp.Quantile(levels, quietShare))
	}
	return l.quietest
}

// ending is where a plateau's sound ends: where it has faded, or, in a room
// that carries it on, a little after it began to. It lies before until.
func (b *builder) ending(p plateau, until music.Seconds, level, threshold music.Decibels) music.Seconds {
	w := window(p.pitch)
	faded := b.fine.Crossing(p.Release, edgeReach, w, threshold, false)
	body := b.lastAbove(p, until, level-bodyBelow)
	if body > 0 && faded-body > fallsWithin && faded-body < longestRing {
		return body + fallsWithin
	}
	return faded
}

// lastAbove is the last moment before until at which a plateau is louder than a level, or 0.
func (b *builder) lastAbove(p plateau, until music.Seconds, level music.Decibels) music.Seconds {
	w := window(p.pitch)
	for at := until; at > p.Onset; at -= contour.EnvelopeStep {
		if b.fine.Level(at, w) >= level {
			return at
		}
	}
	return 0
}

// meeting is where one pitch passes to the next: the frames between belong to
// neither, and the middle of them is taken.
func (b *builder) meeting(before, after plateau) music.Seconds {
	return (contour.Time(before.to-1) + contour.Time(after.from)) / 2
}

// joint tells whether the tongue parts two pitches that follow each other.
func (b *builder) joint(before, after plateau, w music.Seconds) Start {
	depth, at := dipIn(b.fine, after.Onset, tongueAround, w)
	if depth <= max(tongueDip, b.dip-jointDeeper) || b.isCancelledAt(at, before, after) {
		return BySlur
	}
	return ByTongue
}

// dipIn is how deep the loudness dips about a moment, and where: there is the one sound before
// it, and the other behind it.
func dipIn(e contour.Envelope, about, around, w music.Seconds) (depth music.Decibels, at music.Seconds) {
	at = about
	for t := about - around/2; t <= about+around/2; t += tongueStep {
		if e.Level(t, w) < e.Level(at, w) {
			at = t
		}
	}
	before, after := contour.Silence, contour.Silence
	for d := music.Seconds(0); d <= around; d += tongueStep {
		before, after = max(before, e.Level(at-d, w)), max(after, e.Level(at+d, w))
	}
	return min(before, after) - e.Level(at, w), at
}

// jointDeeper is how much less deep the tongue's dip between two pitches is than
// inside one: a change of note hides some of it.
const jointDeeper = music.Decibels(3)

// A tongued repetition is a dip in the loudness, deep and short. Where a score
// asks for one, a shallow dip will do; where it asks for one note going on, only
// a deep one is the tongue and not the air's own pulse.
const (
	tongueDip     = music.Decibels(10) // without a score
	deepDip       = music.Decibels(16) // inside a note of the score
	tongueLongest = music.Seconds(0.12)
	tongueAround  = music.Seconds(0.088)
	tongueApart   = music.Seconds(0.08)
	tongueEdge    = music.Seconds(0.1) // from the ends of a plateau
	tongueStep    = music.Seconds(0.004)
)

// cutAtTongue cuts a plateau where the tongue touched it. A dip long enough to
// be a silence is left as one between its two parts.
func (b *builder) cutAtTongue(p plateau) []plateau {
	w := window(p.pitch)
	begin := p.Onset
	levels := b.levelsOf(fully, p)
	count := len(levels)
	around, edge, longest := int(tongueAround/tongueStep), int(tongueEdge/tongueStep), int(tongueLongest/tongueStep)
	before, after := dsp.Highest(levels, around+1), dsp.Highest(levels, around)
	var out []plateau
	for n := edge; n < count-edge; n++ { // edge is farther than around
		top := min(before[n-around], after[n])
		if levels[n] > top-b.dip {
			continue
		}
		bottom := n
		for k := n; k < min(n+longest, count-edge/2); k++ {
			if levels[k] < levels[bottom] {
				bottom = k
			}
		}
		at, half := begin+music.Seconds(bottom)*tongueStep, top-b.dip*3/4
		from, to := b.fine.Crossing(
			at,
			tongueLongest,
			w,
			half,
			false,
		), b.fine.Crossing(
			at,
			tongueLongest,
			w,
			half,
			true,
		)
		if from < at && to > at && to-from <= tongueLongest && !b.isCancelled(p.pitch, from, to) {
			first, rest := p, p
			first.Release, first.to = from, max(p.from+1, contour.Index(from)+1)
			rest.Onset, rest.from, rest.starts = to, min(p.to-1, contour.Index(to)), ByTongue
			if to-from >= GapTime {
				rest.starts = AfterSilence
			}
			out = append(out, first)
			p = rest
			n = int((to + tongueApart - begin) / tongueStep)
		}
	}
	return append(out, p)
}

// firstLong returns the index of the first plateau long enough to be a note.
func firstLong(plateaus []plateau) int {
	for n, p := range plateaus {
		if p.length() >= longEnough {
			return n
		}
	}
	return 0
}
