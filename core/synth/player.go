// Package synth plays scores: simulated players whose every fault is known
// exactly, and reference tones.
package synth

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/audio"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Player is a simulated player. The zero Player, given an instrument, plays
// exactly what is written. All moments are counted from a note's start.
type Player struct {
	Instrument instrument.Instrument
	Seed       uint64 // same seed, same sound

	Offset     music.Cents    // how far every note lies from its target
	Drift      float64        // cents a second
	WaverDepth music.Cents    // peak deviation of a slow, slightly irregular waver
	WaverHz    float64        // its rate; 0 means 5
	Late       music.Seconds  // start after the beat
	Held       float64        // share of the beats held; 0 means all
	Sag        music.Cents    // how far the pitch falls over the last second
	Breath     music.Decibels // breath noise below the tone; 0 means none
	Room       music.Decibels // noise of the room, dB below full scale; 0 means none
	Level      music.Decibels // RMS of the tone, dB below full scale; 0 means -20

	Gaps   []Gap
	Cracks []Crack
	Shift  int // semitones every note is wrong by: a wrong fingering or partial

	// FaultOn, from 1, is the only note that has the gaps, the cracks and the
	// shift; 0 means every note. NoteOffsets are added to Offset, note by note.
	FaultOn     int
	NoteOffsets []music.Cents
}

// Gap is a silence inside a note.
type Gap struct{ At, Length music.Seconds }

// Crack is a jump to another partial and back. A crack at 0 starts the note on
// the wrong partial.
type Crack struct {
	At, Length music.Seconds
	Semitones  int
}

// Truth is what was really played for one target.
type Truth struct {
	Onset, Release music.Seconds
	Pitch          music.Hertz // without drift, waver and sag
}

const defaultLevel music.Decibels = -20

// Seconds a note takes to rise and to fall, and a gap's edges to close.
const (
	attackTime  = 0.03
	releaseTime = 0.06
	edgeTime    = 0.008
)

// Play returns the take of score and, for each target, what was played.
func (p Player) Play(score exercise.Score, rate int) (audio.Mono, []Truth) {
	sound := audio.Mono{Rate: rate, Samples: make([]float64, int(float64(score.Seconds())*float64(rate)))}
	chance := rand.New(rand.NewPCG(p.Seed, 0x0EA1))
	if p.Room != 0 {
		gain := amplitude(p.Room)
		for n := range sound.Samples {
			sound.Samples[n] = gain * chance.NormFloat64()
		}
	}
	var truths []Truth
	for n, target := range score.Targets() {
		truths = append(truths, p.onNote(n).note(sound, score, target, chance))
	}
	return sound, truths
}

// onNote returns the player with what is particular to note n.
func (p Player) onNote(n int) Player {
	if n < len(p.NoteOffsets) {
		p.Offset += p.NoteOffsets[n]
	}
	if p.FaultOn != 0 && p.FaultOn != n+1 {
		p.Gaps, p.Cracks, p.Shift = nil, nil, 0
	}
	return p
}

func amplitude(d music.Decibels) float64 { return math.Pow(10, float64(d)/20) }

// note adds one note to the sound.
func (p Player) note(sound audio.Mono, score exercise.Score, target exercise.Segment, chance *rand.Rand) Truth {
	beats := score.TempoBPM.Seconds(target.Beats)
	held := beats
	if p.Held > 0 {
		held = music.Seconds(p.Held) * beats
	}
	onset := score.TempoBPM.Seconds(target.StartBeat) + p.Late
	length := held - p.Late
	pitch := p.Offset.Above((target.Target + music.MIDI(p.Shift)).Frequency(score.A4Hz))
	voice := voice{
		player: p, pitch: pitch, length: float64(length), chance: chance, gain: amplitude(p.level()),
		wave: newWavetable(p.Instrument.Family, pitch, sound.Rate), waverPhase: chance.Float64(),
	}
	voice.cracked = voice.crackWaves(sound.Rate)
	first := int(float64(onset) * float64(sound.Rate))
	count := int(float64(length) * float64(sound.Rate))
	for n := range count {
		if first+n >= len(sound.Samples) {
			break
		}
		sound.Samples[first+n] += voice.next(float64(n)/float64(sound.Rate), 1/float64(sound.Rate))
	}
	return Truth{Onset: onset, Release: onset + length, Pitch: pitch}
}

func (p Player) level() music.Decibels {
	if p.Level == 0 {
		return defaultLevel
	}
	return p.Level
}

// voice is a note being played.
type voice struct {
	player     Player
	pitch      music.Hertz
	length     float64
	gain       float64
	wave       wavetable
	cracked    []wavetable // one for each crack
	chance     *rand.Rand
	phase      float64
	waverPhase float64
	breath     float64
}

func (v *voice) crackWaves(rate int) []wavetable {
	waves := make([]wavetable, len(v.player.Cracks))
	for n, c := range v.player.Cracks {
		f := music.Cents(100 * c.Semitones).Above(v.pitch)
		waves[n] = newWavetable(v.player.Instrument.Family, f, rate)
	}
	return waves
}

// next returns the sample at t seconds into the note.
func (v *voice) next(t, dt float64) float64 {
	wave, semitones := v.wave, 0
	for n, c := range v.player.Cracks {
		if t >= float64(c.At) && t < float64(c.At+c.Length) {
			wave, semitones = v.cracked[n], c.Semitones
		}
	}
	f := (v.bend(t) + music.Cents(100*semitones)).Above(v.pitch)
	v.phase += float64(f) * dt
	gain := v.gain * v.shape(t)
	out := gain * wave.at(v.phase)
	if v.player.Breath != 0 {
		// One pole softens white noise to the hiss of air; its gain restores the level.
		v.breath += 0.4 * (v.chance.NormFloat64() - v.breath)
		out += gain * amplitude(v.player.Breath) * 2 * v.breath
	}
	return out
}

// bend is how far the pitch is off its centre at t.
func (v *voice) bend(t float64) music.Cents {
	p := v.player
	c := p.Drift * (t - v.length/2)
	if p.WaverDepth != 0 {
		rate := p.WaverHz
		if rate == 0 {
			rate = 5
		}
		// Two close rates beat, as an unsteady player's waver does.
		c += float64(p.WaverDepth) * (0.8*math.Sin(2*math.Pi*(rate*t+v.waverPhase)) + 0.2*math.Sin(2*math.Pi*rate*1.37*t))
	}
	if left := v.length - t; p.Sag != 0 && left < 1 {
		c -= float64(p.Sag) * (1 - left)
	}
	return music.Cents(c)
}

// shape is the note's loudness at t, 0 to 1.
func (v *voice) shape(t float64) float64 {
	s := min(rise(t/attackTime), rise((v.length-t)/releaseTime))
	for _, g := range v.player.Gaps {
		from, to := float64(g.At), float64(g.At+g.Length)
		s = min(s, max(rise((from-t)/edgeTime), rise((t-to)/edgeTime)))
	}
	return s
}

// rise goes from 0 to 1 as x does, with flat ends.
func rise(x float64) float64 {
	if x <= 0 {
		return 0
	}
	if x >= 1 {
		return 1
	}
	return 0.5 - 0.5*math.Cos(math.Pi*x)
}
