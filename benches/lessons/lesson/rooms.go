package lesson

import (
	"math/rand/v2"

	"earlychorus/core/audio"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// Room is a place where a take is recorded. The same playing gets the same
// conclusion in each.
type Room struct {
	Name   string
	rings  bool // or hums, so that the tongue is hidden
	record func(take audio.Mono, s scores.Score, chance *rand.Rand) audio.Mono
}

// The microphones of a laptop and of a phone, roughly (from memory).
var (
	laptop = synth.Device{LowCut: 90, HighCut: 11000}
	phone  = synth.Device{LowCut: 150, HighCut: 7500}
)

func in(r synth.Room) func(audio.Mono, scores.Score, *rand.Rand) audio.Mono {
	return func(take audio.Mono, _ scores.Score, chance *rand.Rand) audio.Mono {
		r.Seed = chance.Uint64()
		return r.Record(take)
	}
}

// Practicing is the room with a neighbor in it.
const Practicing = "neighbor practicing"

// Rooms lists them.
func Rooms() []Room {
	ringing := synth.Hall{Fall: 0.5}
	return []Room{
		{"dry", false, in(synth.Room{Noise: -72})},
		{"bedroom, laptop", false, in(synth.Room{
			Noise:  -66,
			Hall:   synth.Hall{Fall: 0.25, Wet: -6, Dark: true},
			Device: laptop,
		})},
		{"bathroom, phone", true, in(synth.Room{Noise: -68, Hall: synth.Hall{Fall: 0.6}, Device: phone})},
		{"classroom", true, in(synth.Room{Noise: -64, Hall: ringing})},
		{"band hall", true, in(synth.Room{Noise: -64, Hall: synth.Hall{Fall: 0.9, Dark: true}})},
		{"fan and laptop", true, in(synth.Room{
			Noise:  -52,
			Hum:    -58,
			HumHz:  60,
			Device: laptop,
		})},
		{"metronome", true, metronome},
		{"sibling talking", false, talking},
		{Practicing, false, practicing},
	}
}

// metronome clicks from a loudspeaker on every beat, in a room that rings.
func metronome(take audio.Mono, s scores.Score, chance *rand.Rand) audio.Mono {
	r := synth.Room{
		Seed:  chance.Uint64(),
		Noise: -66,
		Hall:  synth.Hall{Fall: 0.4},
		Click: -18,
	}
	for beat := music.Beats(0); beat < s.Beats(); beat++ {
		r.Clicks = append(r.Clicks, s.TempoBPM.Seconds(beat))
	}
	return r.Record(take)
}

// talking lies 20 dB below the player, in the rests and over the notes.
func talking(take audio.Mono, s scores.Score, chance *rand.Rand) audio.Mono {
	with := audio.Mono{Rate: take.Rate, Samples: append([]float64(nil), take.Samples...)}
	for at := music.Seconds(0.3 + chance.Float64()); at < s.Seconds(); at += music.Seconds(3 + 3*chance.Float64()) {
		synth.Speech(with, at, at+1.4, -44, chance.Uint64())
	}
	return synth.Room{Seed: chance.Uint64(), Noise: -66, Hall: synth.Hall{Fall: 0.3, Wet: -5}}.Record(with)
}

// practicing is somebody else's trumpet in the next room, 30 dB softer.
func practicing(take audio.Mono, s scores.Score, chance *rand.Rand) audio.Mono {
	other, err := instrument.Get("trumpet")
	if err != nil {
		panic(err)
	}
	line := scores.Score{TempoBPM: 96, A4Hz: s.A4Hz}
	for at := music.Beats(0); s.TempoBPM.Seconds(s.Beats()) > line.TempoBPM.Seconds(at+3); at += 4 {
		line.Segments = append(line.Segments, scores.Segment{
			Phase:     scores.Play,
			StartBeat: at,
			Beats:     2,
			Target:    other.FirstFive[chance.IntN(5)],
		})
	}
	sound, _ := synth.Player{Instrument: other, Seed: chance.Uint64(), Level: -48}.Play(line, take.Rate)
	sound = synth.Room{Device: synth.Device{HighCut: 2500}}.Record(sound)
	room := synth.Room{Seed: chance.Uint64(), Noise: -66, Hall: synth.Hall{Fall: 0.3, Wet: -5}}
	return room.Record(synth.Mixed(take, sound))
}
