package ear

import (
	"math"
	"slices"

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
func (t *Take) pulseOf(s stretch, asked float64) *Pulse {
	p := &Pulse{Asked: asked}
	if len(s.t) < fewestFrames {
		return p
	}
	step := asked / 100
	rate, loud := t.strongest(s.t, s.levels, rates{slowestPulse * asked, fastestPulse * asked, step})
	// Where the pushes asked for stand out too, something else moves beside them: the room.
	near := rates{(1 - asAsked) * asked, (1 + asAsked) * asked, step}
	if r, a := t.strongest(s.t, s.levels, near); a > asAskedShare*loud &&
		math.Abs(r/asked-1) < asAsked-1.5*step/asked {
		rate, loud = r, a
	}
	if p.Depth = 2 * loud; p.Depth < leastPulse {
		return p
	}
	_, cents := t.strongest(s.t, s.cents, rates{rate, rate, step})
	p.Rate, p.Cents = rate, music.Cents(2*cents)
	return p
}

// strongest returns the rate and the amplitude of the strongest sine in x. at are the
// moments, evenly spaced but for gaps. What is stronger the slower it is, as how a room
// sways, is no sine between the rates; only where there is nothing else the ends count.
func (t *Take) strongest(at, x []float64, over rates) (rate, amplitude float64) {
	heard, all := t.swingsOf(at, x, over), over.all()
	for n := 1; n+1 < len(heard); n++ {
		if heard[n] > heard[n-1] && heard[n] >= heard[n+1] && heard[n] > amplitude {
			rate, amplitude = all[n], heard[n]
		}
	}
	if amplitude == 0 && len(heard) > 0 {
		amplitude = slices.Max(heard)
		rate = all[slices.Index(heard, amplitude)]
	}
	return rate, amplitude
}
