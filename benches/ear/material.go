package main

import (
	"math/rand/v2"

	"earlychorus/benches/sampled"
	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// sample is one recording with what sounds at every frame.
type sample struct {
	instrument instrument.Instrument
	condition  string
	sound      audio.Mono
	truth      []music.Hertz // a frame each contour.Hop; 0 where nothing is played
	near       []bool        // frames too near an edge, or in an echo's tail, to be asked about
	cracks     []crack
}

// crack is a stretch that really sounds at another partial.
type crack struct {
	from, to music.Seconds
	pitch    music.Hertz
}

const (
	noteSeconds = 1.2
	restSeconds = 0.5
	edge        = music.Seconds(0.03)
)

// condition is a way of playing and of recording.
type condition struct {
	name   string
	player func(p *synth.Player, chance *rand.Rand)
	room   func(r *synth.Room, onsets []music.Seconds, chance *rand.Rand)
	after  func(audio.Mono) (audio.Mono, error) // what a codec or a converter does
	rate   int                                  // 0 means 48000
	tail   music.Seconds                        // of echo, not asked about
	second bool                                 // somebody else holds a note, 15 dB softer

	font  *sampled.Font // by recorded instruments, whose exact pitch is not known
	swell bool          // each note grows from very soft to very loud and fades again
}

func noise(snr music.Decibels) func(*synth.Room, []music.Seconds, *rand.Rand) {
	return func(r *synth.Room, _ []music.Seconds, _ *rand.Rand) { r.Noise = -20 - snr }
}

func clicks(r *synth.Room, onsets []music.Seconds, chance *rand.Rand) {
	for _, at := range onsets {
		for k := range 4 {
			r.Clicks = append(r.Clicks, at+music.Seconds(0.3*float64(k)+0.01*chance.Float64()))
		}
	}
	r.Noise = -70
}

func cracksOf(length music.Seconds) func(*synth.Player, *rand.Rand) {
	return func(p *synth.Player, chance *rand.Rand) {
		at := music.Seconds(0.35 + 0.3*chance.Float64())
		p.Cracks = []synth.Crack{
			{At: at, Length: length, Semitones: synth.NextPartial(p.Instrument, p.Instrument.Home())},
		}
	}
}

// conditions are what every instrument is played and recorded in.
func conditions() []condition {
	hum := func(level music.Decibels, hz music.Hertz) func(*synth.Room, []music.Seconds, *rand.Rand) {
		return func(r *synth.Room, _ []music.Seconds, _ *rand.Rand) { r.Hum, r.HumHz, r.Noise = level, hz, -75 }
	}
	out := []condition{
		{name: "clean"},
		{name: "noise 30 dB", room: noise(30)},
		{name: "noise 20 dB", room: noise(20)},
		{name: "noise 10 dB", room: noise(10)},
		{name: "noise 5 dB", room: noise(5)},
		{name: "noise 0 dB", room: noise(0)},
		{name: "noise 10 dB, 16 kHz", room: noise(10), rate: 16000},
		{name: "noise 0 dB, 16 kHz", room: noise(0), rate: 16000},
		{name: "16 kHz", rate: 16000},
		{name: "lossy", after: lossy},
		{
			name: "echo",
			room: func(r *synth.Room, _ []music.Seconds, _ *rand.Rand) { r.Echo, r.Noise = 0.6, -70 },
			tail: 0.45,
		},
		{
			name: "clipped",
			room: func(r *synth.Room, _ []music.Seconds, _ *rand.Rand) { r.Device.Gain, r.Noise = 24, -60 },
		},
		{name: "telephone", room: func(r *synth.Room, _ []music.Seconds, _ *rand.Rand) {
			r.Device.LowCut, r.Device.HighCut, r.Noise = 300, 3400, -60
		}},
		{
			name: "gain riding",
			room: func(r *synth.Room, _ []music.Seconds, _ *rand.Rand) { r.Device.Riding, r.Noise = true, -65 },
			tail: 0.1,
		},
		{name: "hum 50 Hz", room: hum(-45, 50)},
		{name: "hum 60 Hz", room: hum(-40, 60)},
		{name: "clicks", room: clicks},
		{name: "neighbour", second: true},
		{name: "breathy", player: func(p *synth.Player, _ *rand.Rand) { p.Breath, p.Room = -8, -70 }},
		{name: "beginner", player: func(p *synth.Player, chance *rand.Rand) {
			p.WaverDepth, p.WaverHz, p.Jitter, p.Scoop, p.LevelWaver, p.Breath = 18, 2+
				3*chance.Float64(), 3, -40, 2, -25
			p.AirLead, p.Room = 0.08, -65
		}},
		{name: "vibrato", player: func(p *synth.Player, _ *rand.Rand) { p.Vibrato = 40 }},
		{name: "crack 60 ms", player: cracksOf(0.06), room: noise(40)},
		{name: "crack 100 ms", player: cracksOf(0.1), room: noise(40)},
		{name: "swell", swell: true, room: noise(45)},
	}
	for _, f := range sampled.Fonts() {
		out = append(out, recorded(f)...)
	}
	return out
}

// recorded are the conditions that a set of recordings is heard in.
func recorded(f sampled.Font) []condition {
	in := func(r synth.Room) func(*synth.Room, []music.Seconds, *rand.Rand) {
		return func(to *synth.Room, _ []music.Seconds, _ *rand.Rand) {
			r.Seed = to.Seed
			*to = r
		}
	}
	out := []condition{
		{name: "dry"},
		{name: "noise 10 dB", room: noise(10)},
		{name: "noise 5 dB", room: noise(5)},
		{name: "clipped", room: in(synth.Room{Noise: -60, Device: synth.Device{Gain: 24}})},
		{name: "echo", room: in(synth.Room{Echo: 0.6, Noise: -70}), tail: 0.45},
		{
			name: "classroom echo, noise 20 dB", tail: 0.45,
			room: in(synth.Room{Hall: synth.Hall{Fall: 0.5}, Noise: -40}),
		},
		{
			name: "band hall", tail: 0.7,
			room: in(synth.Room{Hall: synth.Hall{Fall: 0.9, Dark: true}, Noise: -64}),
		},
		{
			name: "bathroom, phone", tail: 0.5,
			room: in(synth.Room{
				Hall: synth.Hall{Fall: 0.6}, Noise: -66, Device: synth.Device{LowCut: 150, HighCut: 7500},
			}),
		},
		{name: "clicks", room: clicks},
	}
	for n := range out {
		out[n].name, out[n].font = f.Name+", "+out[n].name, &f
	}
	return out
}

// fits reports whether an instrument can be asked under the condition.
func (c condition) fits(i instrument.Instrument) bool {
	return c.font == nil || c.font.Known(i.Key)
}

// make plays an instrument's beginner range, half of its notes (part 0 or 1).
func (c condition) make(i instrument.Instrument, part int) (sample, error) {
	chance := rand.New(rand.NewPCG(uint64(part), uint64(len(c.name))*1000+uint64(i.Home())))
	score := scores.Score{TempoBPM: 60, A4Hz: 440}
	at := music.Beats(restSeconds)
	var onsets []music.Seconds
	for note := i.Beginner.From + music.MIDI(part); note <= i.Beginner.To; note += 2 {
		score.Segments = append(score.Segments, scores.Segment{
			Phase:     scores.Play,
			StartBeat: at,
			Beats:     noteSeconds,
			Target:    note,
		})
		onsets = append(onsets, music.Seconds(at))
		at += noteSeconds + restSeconds
	}
	score.Segments = append(score.Segments, scores.Segment{Phase: scores.Rest, StartBeat: at})
	if c.swell {
		score = swelling(score)
	}
	if c.font != nil {
		return c.makeSampled(i, score, onsets, chance)
	}
	p := synth.Player{Instrument: i, Seed: chance.Uint64(), Breath: -45}
	for range onsets {
		p.NoteOffsets = append(p.NoteOffsets, music.Cents(40*chance.Float64()-20))
	}
	if c.player != nil {
		c.player(&p, chance)
	}
	rate := c.rate
	if rate == 0 {
		rate = 48000
	}
	sound, truths := p.Play(score, rate)
	if c.second {
		sound = synth.Mixed(sound, c.neighbour(i, score, rate, chance))
	}
	room := synth.Room{Seed: chance.Uint64()}
	if c.room != nil {
		c.room(&room, onsets, chance)
	}
	s := sample{instrument: i, condition: c.name, sound: room.Record(sound)}
	if c.after != nil {
		var err error
		if s.sound, err = c.after(s.sound); err != nil {
			return s, err
		}
	}
	s.mark(truths, p, c.tail)
	return s, nil
}

// swelling has each note grow from very soft to very loud and fade again.
func swelling(s scores.Score) scores.Score {
	out := scores.Score{TempoBPM: s.TempoBPM, A4Hz: s.A4Hz}
	for _, seg := range s.Segments {
		if seg.Phase != scores.Play {
			out.Segments = append(out.Segments, seg)
			continue
		}
		up, down := seg, seg
		up.Beats, down.Beats = seg.Beats/2, seg.Beats/2
		down.StartBeat += up.Beats
		up.Dynamic, up.DynamicTo = "pp", "ff"
		down.Dynamic, down.DynamicTo, down.Articulation = "ff", "pp", scores.Slurred
		out.Segments = append(out.Segments, up, down)
	}
	return out
}

// makeSampled plays the score on an instrument's samples, brought to the
// loudness of our players. What is true is the note, not its cents.
func (c condition) makeSampled(
	i instrument.Instrument,
	score scores.Score,
	onsets []music.Seconds,
	chance *rand.Rand,
) (sample, error) {
	var notes []sampled.Note
	var truths []synth.Truth
	for n, target := range score.Targets() {
		from, to := onsets[n], onsets[n]+noteSeconds
		notes = append(notes, sampled.Note{From: from, To: to, MIDI: target.Target})
		t := synth.Truth{Onset: from, Release: to}
		for range int(noteSeconds / float64(synth.PathStep)) {
			t.Path = append(t.Path, target.Target.Frequency(score.A4Hz))
		}
		truths = append(truths, t)
	}
	sound, err := c.font.Render(i.Key, notes)
	if err != nil {
		return sample{}, err
	}
	for n := range sound.Samples {
		sound.Samples[n] *= sampledGain
	}
	room := synth.Room{Seed: chance.Uint64()}
	if c.room != nil {
		c.room(&room, onsets, chance)
	}
	s := sample{instrument: i, condition: c.name, sound: room.Record(sound)}
	s.mark(truths, synth.Player{}, c.tail+sampledTail)
	return s, nil
}

const (
	sampledGain = 3.
	sampledTail = music.Seconds(0.25) // samples ring on
)

// neighbour holds other notes of the same kind of instrument, 15 dB softer.
func (c condition) neighbour(i instrument.Instrument, score scores.Score, rate int, chance *rand.Rand) audio.Mono {
	other := scores.Score{TempoBPM: score.TempoBPM, A4Hz: score.A4Hz}
	for _, seg := range score.Segments {
		seg.Target += music.MIDI(3 + chance.IntN(5))
		other.Segments = append(other.Segments, seg)
	}
	sound, _ := synth.Player{Instrument: i, Seed: chance.Uint64(), Level: -35}.Play(other, rate)
	return sound
}

// mark writes down what sounds when.
func (s *sample) mark(truths []synth.Truth, p synth.Player, tail music.Seconds) {
	frames := int(s.sound.Seconds() / float64(contour.Hop))
	s.truth, s.near = make([]music.Hertz, frames), make([]bool, frames)
	for _, t := range truths {
		for n := range frames {
			at := contour.Time(n)
			if f := t.At(at); f > 0 {
				s.truth[n] = f
			}
			if abs(at-t.Onset) < edge || at > t.Release-2*edge && at < t.Release+edge+tail {
				s.near[n] = true
			}
		}
		for _, c := range p.Cracks {
			from, to := t.Onset+c.At, t.Onset+c.At+c.Length
			s.cracks = append(s.cracks, crack{from, to, t.At((from + to) / 2)})
			for n := range frames {
				at := contour.Time(n)
				if abs(at-from) < 0.02 || abs(at-to) < 0.02 {
					s.near[n] = true
				}
			}
		}
	}
}

func abs(s music.Seconds) music.Seconds { return max(s, -s) }
