package contour

import (
	"math"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// rest is what a take sounds like where nobody plays, learned from its own
// quietest frames: which clearness noise reaches by chance, and whether the
// quiet itself has a pitch, as mains hum does.
type rest struct {
	gate      music.Decibels // frames below are rests, whatever they hold
	threshold float64        // clarity at which a pitch is as likely as not
	hum       music.Hertz    // pitch of the quiet itself; 0 for none
	humGate   music.Decibels // frames below have the hum's pitch, not a note's
}

const (
	quietShare     = 0.15 // of the frames, from which the quiet is learned
	quietFrames    = 48   // at most
	lowestGate     = music.Decibels(-75)
	gateBelowLoud  = music.Decibels(50)
	gateAboveQuiet = music.Decibels(1) // above the quiet, where the take is not all even
	evenTake       = music.Decibels(3)

	tonalQuiet       = 0.5 // median clarity from which the quiet has a pitch
	aboveChance      = 0.12
	lowestThreshold  = 0.36
	highestThreshold = 0.6
	usualThreshold   = 0.45

	humBelowLoud = music.Decibels(9) // hum is at least so much softer than what is played
	humMargin    = music.Decibels(6)
	humSpread    = music.Cents(20)
	humShare     = 0.6 // of the tonal quiet frames that lie within the spread
)

// learnRest listens to the quietest frames.
func (f *finder) learnRest(levels []music.Decibels) rest {
	r := rest{gate: lowestGate, threshold: usualThreshold}
	if len(levels) == 0 {
		return r
	}
	x := make([]float64, len(levels))
	for n, v := range levels {
		x[n] = float64(v)
	}
	quiet, loud := music.Decibels(dsp.Quantile(x, quietShare)), music.Decibels(dsp.Quantile(x, 0.95))
	r.gate = max(r.gate, loud-gateBelowLoud)
	if quiet < lowestGate {
		return r
	}
	if loud-quiet > evenTake {
		r.gate = max(r.gate, quiet+gateAboveQuiet)
	}
	clarity, pitches := f.listenToQuiet(levels, quiet)
	switch {
	case len(clarity) == 0:
	case dsp.Median(clarity) < tonalQuiet:
		r.threshold = max(lowestThreshold, min(highestThreshold, dsp.Quantile(clarity, 0.95)+aboveChance))
	case loud-quiet > humBelowLoud:
		if hum := music.Hertz(dsp.Median(pitches)); shareNear(pitches, hum, humSpread) > humShare {
			r.hum, r.humGate = hum, quiet+humMargin
		}
	case loud < loudestHum:
		// A take all of one loudness is one long note, unless it is the mains' own.
		if hum := music.Hertz(dsp.Median(pitches)); isMains(hum) && shareNear(pitches, hum, mainsSpread) > humShare {
			r.hum, r.humGate = hum, loud+humMargin
		}
	}
	return r
}

// mains are the frequencies of the world's electricity, and hum's usual second
// harmonic (IEC 60038 for the nominal 50 and 60 Hz, from memory).
var mains = []music.Hertz{50, 60, 100, 120}

const (
	loudestHum  = music.Decibels(-25)
	mainsSpread = music.Cents(2) // no breath is so steady
	mainsNear   = music.Cents(10)
)

func isMains(f music.Hertz) bool {
	for _, m := range mains {
		if off := music.Between(m, f); max(off, -off) < mainsNear {
			return true
		}
	}
	return false
}

// listenToQuiet returns the clarity of quiet frames, and the pitches of those
// that have one.
func (f *finder) listenToQuiet(levels []music.Decibels, quiet music.Decibels) (clarity, pitches []float64) {
	var frames []int
	for n, v := range levels {
		if v <= quiet && v >= lowestGate {
			frames = append(frames, n)
		}
	}
	stride := max(1, len(frames)/quietFrames)
	for k := 0; k < len(frames); k += stride {
		heard, _ := f.pair(frames[k], -1, nil, nil)
		clarity = append(clarity, heard.best)
		if len(heard.candidates) > 0 && heard.best > tonalQuiet {
			pitches = append(pitches, float64(likeliest(heard.candidates).pitch))
		}
	}
	return clarity, pitches
}

func shareNear(pitches []float64, centre music.Hertz, spread music.Cents) float64 {
	near := 0
	for _, p := range pitches {
		if off := music.Between(centre, music.Hertz(p)); max(off, -off) < spread {
			near++
		}
	}
	return float64(near) / math.Max(1, float64(len(pitches)))
}

// isHum reports whether a pitch at a level is the quiet's own.
func (r rest) isHum(pitch music.Hertz, level music.Decibels) bool {
	return level <= r.humGate && r.isHumPitch(pitch)
}

// isHumPitch reports whether a pitch is the hum's, or one of its multiples or
// parts.
func (r rest) isHumPitch(pitch music.Hertz) bool {
	if r.hum == 0 {
		return false
	}
	ratio := float64(pitch / r.hum)
	if ratio < 1 {
		ratio = 1 / ratio
	}
	return math.Abs(1200*math.Log2(ratio/math.Round(ratio))) < 2*float64(humSpread)
}
