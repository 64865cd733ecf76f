// Package synth plays scores: simulated players whose every fault is known
// exactly, reference tones, and the rooms and devices they are recorded in.
// The ear is trained and tested on it, so what it returns as truth is what it
// really played.
package synth

import (
	"math"
	"math/rand/v2"
	"slices"

	"earlychorus/core/audio"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Player is a simulated player. The zero Player, given an instrument, plays
// exactly what is written. Moments in a note are counted from its start.
type Player struct {
	Instrument instrument.Instrument
	Seed       uint64 // same seed, same sound

	Offset     music.Cents // how far every note lies from its target
	Drift      float64     // cents a second
	WaverDepth music.Cents // peak deviation of a slow, slightly irregular waver
	WaverHz    float64     // its rate; 0 means 5
	Vibrato    music.Cents // peak deviation of a regular vibrato at 5.5 Hz
	Scoop      music.Cents // how far off a note starts; gone after about 0.15 s
	Sag        music.Cents // how far the pitch falls over the last second
	WithLevel  music.Cents // how far the pitch rises from very soft to very loud
	Jitter     music.Cents // size of the small random walk no lip is without

	Late    music.Seconds // start after the beat
	Held    float64       // share of the beats held; 0 means all
	Attack  music.Seconds // time to rise; 0 means the family's own
	Release music.Seconds // time to fall; 0 means 0.06 s, and a taper where the score asks for one
	AirLead music.Seconds // air noise before the tone speaks

	Level      music.Decibels // RMS of a mezzoforte, dB below full scale; 0 means -20
	LevelWaver music.Decibels // peak deviation of the loudness, slow
	Fade       music.Decibels // loudness lost over a note
	Flatten    float64        // share of the written dynamics that is not played, 0 to 1
	SingsUp    int            // octaves sung above what is written
	Uneven     float64        // spread of bursts of air, as a share of their loudness
	Pulsing    float64        // pulses of air, as a share of the rate asked for; 0 means 1
	Bursts     int            // bursts of air too many (or, negative, too few)
	Breath     music.Decibels // breath noise below the tone; 0 means none
	Room       music.Decibels // noise of the room, dB below full scale; 0 means none

	Gaps       []Gap
	Cracks     []Crack
	Undertones []Undertone
	Chirps     []Chirp
	Shift      int // semitones every note is wrong by: a wrong fingering or partial

	// FaultOn, from 1, is the only note that has the gaps, cracks, undertones,
	// chirps and the shift; 0 means every note. NoteOffsets are added to Offset,
	// NoteLates to Late, note by note.
	FaultOn     int
	NoteOffsets []music.Cents
	NoteLates   []music.Seconds
}

// Gap is a silence inside a note.
type Gap struct{ At, Length music.Seconds }

// Crack is a jump to another partial and back, with the hiss of the jump. A
// crack at 0 starts the note on the wrong partial; one that outlasts the note
// stays there.
type Crack struct {
	At, Length music.Seconds
	Semitones  int // to the note nearest to the partial; it sounds where the tube has it
}

// Undertone is a lower partial that sounds under the note.
type Undertone struct {
	At, Length music.Seconds
	Semitones  int            // below the note, so negative
	Level      music.Decibels // against the note's own
}

// Chirp is a short high squeak over the note.
type Chirp struct{ At, Length music.Seconds }

// Truth is what was really played for one target.
type Truth struct {
	Onset, Release music.Seconds
	Pitch          music.Hertz   // without drift, waver, scoop and sag
	Path           []music.Hertz // the pitch sounding, every PathStep from Onset; 0 in a gap
}

// PathStep is the time between points of a truth's path.
const PathStep music.Seconds = 0.001

// At returns the pitch sounding at a moment of the recording; 0 for none.
func (t Truth) At(moment music.Seconds) music.Hertz {
	n := int(math.Round(float64((moment - t.Onset) / PathStep)))
	if n < 0 || n >= len(t.Path) {
		return 0
	}
	return t.Path[n]
}

// tapered is a fall that takes some 0.2 s from nine tenths to a tenth.
const tapered music.Seconds = 0.35

// breathAttack is the time a note takes to rise that the breath alone begins.
const breathAttack music.Seconds = 0.28

const defaultLevel music.Decibels = -20

// Play returns the take of score and, for each sounding target, what was
// played.
func (p Player) Play(score scores.Score, rate int) (audio.Mono, []Truth) {
	sound := audio.Mono{Rate: rate, Samples: make([]float64, int(float64(score.Seconds())*float64(rate)))}
	chance := rand.New(rand.NewPCG(p.Seed, 0x0EA1))
	addNoise(sound.Samples, p.Room, chance)
	if p.Release == 0 &&
		slices.ContainsFunc(score.Rules, func(r scores.Rule) bool { return r.Measure == measure.Taper.Key }) {
		p.Release = tapered
	}
	var truths []Truth
	targets := score.Targets()
	for n := 0; n < len(targets); {
		to := n + 1
		for to < len(targets) && targets[to].Articulation == scores.Slurred {
			to++
		}
		truths = append(truths, p.OnPhrase(score, targets, n, to).phrase(sound, score, targets[n:to], chance)...)
		n = to
	}
	strokes := 0
	for _, seg := range score.Segments {
		switch seg.Phase {
		case scores.Strike:
			p.strike(sound, score, seg, strokes, chance)
			strokes++
		case scores.Out:
			p.blow(sound, score, seg, chance)
		case scores.Free:
			p.invent(sound, score, seg, chance)
		}
	}
	return sound, truths
}

// OnNote returns the player with what is particular to note n.
func (p Player) OnNote(n int) Player {
	if n < len(p.NoteOffsets) {
		p.Offset += p.NoteOffsets[n]
	}
	if n < len(p.NoteLates) {
		p.Late += p.NoteLates[n]
	}
	if p.FaultOn != 0 && p.FaultOn != n+1 {
		p.Gaps, p.Cracks, p.Undertones, p.Chirps, p.Shift = nil, nil, nil, nil, 0
	}
	return p
}

// OnPhrase returns the player with what is particular to a phrase of targets from..to,
// its moments counted from the phrase's start.
func (p Player) OnPhrase(score scores.Score, targets []scores.Segment, from, to int) Player {
	on := p.FaultOn - 1
	if on <= from || on >= to {
		return p.OnNote(from)
	}
	begins := score.TempoBPM.Seconds(targets[on].StartBeat - targets[from].StartBeat)
	faulty, out := p.OnNote(on), p.OnNote(from)
	for _, g := range faulty.Gaps {
		out.Gaps = append(out.Gaps, Gap{g.At + begins, g.Length})
	}
	for _, c := range faulty.Cracks {
		out.Cracks = append(out.Cracks, Crack{max(0.001, c.At+begins), c.Length, c.Semitones})
	}
	for _, c := range faulty.Chirps {
		out.Chirps = append(out.Chirps, Chirp{c.At + begins, c.Length})
	}
	return out
}

// amplitude is asked for often, and the exponential is several times as quick as the power.
// The one to base 2 is the same to the last bit in a browser and on the servers that judge again.
func amplitude(d music.Decibels) float64 { return math.Exp2(float64(d) * (math.Ln10 / math.Ln2 / 20)) }

// phrase adds notes played in one breath without the tongue between them: one
// note, mostly.
func (p Player) phrase(sound audio.Mono, score scores.Score, targets []scores.Segment, chance *rand.Rand) []Truth {
	start := score.TempoBPM.Seconds(targets[0].StartBeat)
	onset := start + p.Late
	last := targets[len(targets)-1]
	end := score.TempoBPM.Seconds(last.StartBeat + last.Beats)
	if p.Held > 0 {
		end = start + music.Seconds(p.Held)*(end-start)
	}
	length := max(0, end-onset)
	breathes := targets[0].Articulation == scores.BreathStart && targets[0].Phase == scores.Play
	if breathes && p.Attack == 0 {
		p.Attack = breathAttack
	}
	v := newVoice(p, targets[0].Phase, p.legs(score, targets), float64(length), float64(sound.Rate), chance)
	v.breathes = breathes
	path := []music.Hertz{}
	first := int(math.Round(float64(onset) * float64(sound.Rate)))
	lead := int(float64(p.AirLead) * float64(sound.Rate))
	for n := -lead; n < int(float64(length)*float64(sound.Rate)); n++ {
		x := v.next(float64(n) / float64(sound.Rate))
		if at := first + n; at >= 0 && at < len(sound.Samples) {
			sound.Samples[at] += x
		}
		for n >= 0 && music.Seconds(len(path))*PathStep <= music.Seconds(float64(n)/float64(sound.Rate)) {
			path = append(path, v.sounding)
		}
	}
	return v.truths(onset, length, path)
}

// legs are the notes of a phrase as the voice plays them, counted from its
// onset.
func (p Player) legs(score scores.Score, targets []scores.Segment) []leg {
	begin := score.TempoBPM.Seconds(targets[0].StartBeat) + p.Late
	legs := make([]leg, len(targets))
	for n, t := range targets {
		shift := music.MIDI(p.Shift)
		if t.Phase == scores.Sing {
			shift = music.MIDI(12 * p.SingsUp)
		}
		legs[n] = leg{
			from:   float64(score.TempoBPM.Seconds(t.StartBeat) + p.Late - begin),
			pitch:  p.Offset.Above((t.Target + shift).Frequency(score.A4Hz)),
			loud:   float64(t.Dynamic.Step()),
			loudTo: float64(t.Dynamic.Step()),
		}
		legs[n].to = legs[n].from + float64(score.TempoBPM.Seconds(t.Beats))
		legs[n].pulses = float64(t.Pulses) * float64(score.TempoBPM) / 60
		if p.Pulsing != 0 {
			legs[n].pulses *= p.Pulsing
		}
		legs[n].glideTo = legs[n].pitch
		if t.GlideTo != 0 {
			legs[n].glideTo = p.Offset.Above((t.GlideTo + shift).Frequency(score.A4Hz))
		}
		if t.DynamicTo != "" {
			legs[n].loudTo = float64(t.DynamicTo.Step())
		}
	}
	return legs
}

func (p Player) level() music.Decibels {
	if p.Level == 0 {
		return defaultLevel
	}
	return p.Level
}
