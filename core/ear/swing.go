package ear

import (
	"math"
	"slices"

	"earlychorus/core/dsp"
)

// rates are those at which something may swing to and fro, times a second.
type rates struct{ from, to, step float64 }

func (r rates) all() (out []float64) {
	for f := r.from; f <= r.to; f += r.step {
		out = append(out, f)
	}
	return out
}

// swingsAsked is what was asked of which stretch of a take.
type swingsAsked struct {
	rates
	begins, ends float64 // seconds
}

// swings are how far something swings at each rate that was asked, and what it was.
type swings struct{ at, x, amplitudes []float64 }

// swingsOf is amplitudesOf of a stretch of what came in; not to be changed.
func (t *Take) swingsOf(at, x []float64, over rates) []float64 {
	return t.swings.WhileTrue(
		swingsAsked{over, at[0], at[len(at)-1]},
		true,
		func(s swings) bool { return slices.Equal(s.at, at) && slices.Equal(s.x, x) },
		func() swings { return swings{at, x, amplitudesOf(at, x, over)} },
	).amplitudes
}

// amplitudesOf returns the amplitude of the sine in x at each rate, through a Hann window. at
// are the moments, in seconds, one at least.
func amplitudesOf(at, x []float64, over rates) (out []float64) {
	length := at[len(at)-1] - at[0]
	mean := dsp.Median(x)
	windowed := make([]float64, len(x))
	var weight float64
	for k := range x {
		w := 0.5 - 0.5*math.Cos(2*math.Pi*(at[k]-at[0])/length)
		windowed[k] = w * (x[k] - mean)
		weight += w
	}
	for _, f := range over.all() {
		var re, im float64
		for k, v := range windowed {
			sin, cos := math.Sincos(2 * math.Pi * f * at[k])
			re += v * cos
			im += v * sin
		}
		out = append(out, 2*math.Hypot(re, im)/math.Max(1, weight))
	}
	return out
}
