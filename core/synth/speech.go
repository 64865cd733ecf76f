package synth

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/audio"
	"earlychorus/core/music"
)

// Speech adds somebody talking to a sound from one moment to another: syllables
// whose pitch glides, with pauses between. It says nothing; what matters is that
// it has a pitch and is not playing.
func Speech(m audio.Mono, from, to music.Seconds, level music.Decibels, seed uint64) {
	chance := rand.New(rand.NewPCG(seed, 0x5EEC))
	rate := float64(m.Rate)
	for at := float64(from); at < float64(to); {
		length := 0.12 + 0.14*chance.Float64()
		begin, end := 150+80*chance.Float64(), 130+110*chance.Float64()
		voice := newTone(voiceColour, music.Hertz(begin), rate)
		phase := 0.
		for n := range int(length * rate) {
			t := float64(n) / rate
			f := begin + (end-begin)*t/length + 25*math.Sin(math.Pi*t/length)
			phase += f / rate
			x := amplitude(level) * min(rise(t/0.02), rise((length-t)/0.04)) * voice.at(phase, middle)
			if k := int(at*rate) + n; k < len(m.Samples) {
				m.Samples[k] += x
			}
		}
		at += length + 0.05 + 0.1*chance.Float64()
	}
}
