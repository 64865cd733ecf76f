package synth

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/music"
)

// addNoise adds white noise of the given level; 0 means none.
func addNoise(x []float64, level music.Decibels, chance *rand.Rand) {
	if level == 0 {
		return
	}
	gain := amplitude(level)
	for n := range x {
		x[n] += gain * chance.NormFloat64()
	}
}

// hiss is the noise of air, RMS 1: white noise with its top softened.
type hiss struct{ pole, gain, y float64 }

const hissCorner = 3500 // Hz

func newHiss(rate float64) hiss {
	a := 1 - math.Exp(-2*math.Pi*hissCorner/rate)
	// One pole leaves a/(2−a) of white noise's power.
	return hiss{pole: a, gain: math.Sqrt((2 - a) / a)}
}

func (h *hiss) next(chance *rand.Rand) float64 {
	h.y += h.pole * (chance.NormFloat64() - h.y)
	return h.gain * h.y
}
