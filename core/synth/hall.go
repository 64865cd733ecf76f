package synth

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/audio"
	"earlychorus/core/music"
)

// Hall is a room that rings: a sound in it dies away by 60 dB in Fall, its top
// sooner when the room is dark. The zero Hall adds nothing.
type Hall struct {
	Fall music.Seconds  // reverberation time, RT60 (ISO 3382-2's quantity)
	Wet  music.Decibels // the ring against the direct sound; 0 means -3
	Dark bool           // curtains and carpets: the top dies away three times as fast
}

const (
	usualWet  = music.Decibels(-3)
	firstEcho = 0.004 // seconds before the ring begins
	darkHz    = 1500. // above it a dark room swallows
)

// ring adds the hall to a sound, in place of it. Its times are kept: the direct
// sound comes at once.
func (h Hall) ring(m audio.Mono, chance *rand.Rand) audio.Mono {
	if h.Fall <= 0 {
		return m
	}
	rate := float64(m.Rate)
	tail := make([]float64, int(float64(h.Fall)*1.2*rate))
	first, low, corner := int(firstEcho*rate), 0., 1-math.Exp(-2*math.Pi*darkHz/rate)
	energy := 0.
	for n := first; n < len(tail); n++ {
		t := float64(n-first) / rate
		x := chance.NormFloat64() * math.Pow(10, -3*t/float64(h.Fall))
		if h.Dark {
			low += corner * (x - low)
			x = low + (x-low)*math.Pow(10, -6*t/float64(h.Fall))
		}
		tail[n] = x
		energy += x * x
	}
	wet := h.Wet
	if wet == 0 {
		wet = usualWet
	}
	gain := amplitude(wet) / math.Sqrt(energy)
	for n := range tail {
		tail[n] *= gain
	}
	tail[0] = 1
	return audio.Mono{Rate: m.Rate, Samples: convolved(m.Samples, tail)}
}
