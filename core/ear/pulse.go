package ear

import (
	"math"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Pulse is how the air pushes a tone.
type Pulse struct {
	Rate  float64     `json:"rate_hz" doc:"pushes a second; 0 when none is heard"`
	Asked float64     `json:"asked_hz"`
	Depth float64     `json:"depth_db" doc:"loudness from trough to crest"`
	Cents music.Cents `json:"cents" doc:"how far the pitch moves with the pushes, from trough to crest"`
}

// leastPulse is the shallowest movement that is a push of the air, in dB.
const leastPulse = 1.5

// pulseOf finds the pushes of the air in a note: the strongest regular movement
// of its loudness between half and twice the rate asked for.
func pulseOf(s stretch, asked float64) *Pulse {
	p := &Pulse{Asked: asked}
	if len(s.t) < fewestFrames {
		return p
	}
	step := asked / 100
	rate, loud := strongest(s.t, s.levels, asked/2, 2*asked, step)
	if p.Depth = 2 * loud; p.Depth < leastPulse {
		return p
	}
	_, cents := strongest(s.t, s.cents, rate, rate, step)
	p.Rate, p.Cents = rate, music.Cents(2*cents)
	return p
}

// strongest returns the rate and the amplitude of the strongest sine in x
// between two rates. t are the moments, evenly spaced but for gaps.
func strongest(t, x []float64, from, to, step float64) (rate, amplitude float64) {
	scan(t, x, from, to, step, func(f, a float64) {
		if a > amplitude {
			rate, amplitude = f, a
		}
	})
	return rate, amplitude
}

// scan calls found with the amplitude of the sine at each rate, through a Hann
// window.
func scan(t, x []float64, from, to, step float64, found func(rate, amplitude float64)) {
	length := t[len(t)-1] - t[0]
	mean := dsp.Median(x)
	for f := from; f <= to; f += step {
		var re, im, weight float64
		for k := range t {
			w := 0.5 - 0.5*math.Cos(2*math.Pi*(t[k]-t[0])/length)
			sin, cos := math.Sincos(2 * math.Pi * f * t[k])
			re += w * (x[k] - mean) * cos
			im += w * (x[k] - mean) * sin
			weight += w
		}
		found(f, 2*math.Hypot(re, im)/math.Max(1, weight))
	}
}
