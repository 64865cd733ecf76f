package ear

import (
	"math"
	"slices"

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

// Pushes are looked for between these shares of the rate asked for: half and twice of it
// lie well inside.
const (
	slowestPulse = 0.42
	fastestPulse = 2.2
	asAsked      = 0.07 // this near, it is the rate asked for
	asAskedShare = 0.6  // of the strongest
)

// pulseOf finds the pushes of the air in a note: the strongest regular movement
// of its loudness around the rate asked for.
func pulseOf(s stretch, asked float64) *Pulse {
	p := &Pulse{Asked: asked}
	if len(s.t) < fewestFrames {
		return p
	}
	step := asked / 100
	rate, loud := strongest(s.t, s.levels, slowestPulse*asked, fastestPulse*asked, step)
	// Where the pushes asked for stand out too, something else moves beside them: the room.
	if r, a := strongest(s.t, s.levels, (1-asAsked)*asked, (1+asAsked)*asked, step); a > asAskedShare*loud &&
		math.Abs(r/asked-1) < asAsked-1.5*step/asked {
		rate, loud = r, a
	}
	if p.Depth = 2 * loud; p.Depth < leastPulse {
		return p
	}
	_, cents := strongest(s.t, s.cents, rate, rate, step)
	p.Rate, p.Cents = rate, music.Cents(2*cents)
	return p
}

// strongest returns the rate and the amplitude of the strongest sine in x
// between two rates. t are the moments, evenly spaced but for gaps. What is stronger the
// slower it is, as how a room sways, is no sine between them; only where there is
// nothing else the ends count.
func strongest(t, x []float64, from, to, step float64) (rate, amplitude float64) {
	var rates, heard []float64
	scan(t, x, from, to, step, func(f, a float64) { rates, heard = append(rates, f), append(heard, a) })
	for n := 1; n+1 < len(heard); n++ {
		if heard[n] > heard[n-1] && heard[n] >= heard[n+1] && heard[n] > amplitude {
			rate, amplitude = rates[n], heard[n]
		}
	}
	if amplitude == 0 && len(heard) > 0 {
		amplitude = slices.Max(heard)
		rate = rates[slices.Index(heard, amplitude)]
	}
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
