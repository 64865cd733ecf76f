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
	humSpread    = music.Cents(40) // noise draws its pitch about
	humShare     = 0.6             // of the tonal quiet frames that lie within the spread
)

// learnRest listens to the quietest frames. What is soft is not yet a rest: where
// they sound at the pitch of the louder ones, somebody plays softly.
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
	q := f.listenToQuiet(levels, quiet)
	if loud-quiet > evenTake {
		r.gate = max(r.gate, q.gate())
	}
	hum := music.Hertz(dsp.Median(q.pitches))
	switch {
	case len(q.clarity) == 0:
	case dsp.Median(q.clarity) < tonalQuiet:
		r.threshold = max(lowestThreshold, min(highestThreshold, dsp.Quantile(q.clarity, 0.95)+aboveChance))
	case loud-quiet > humBelowLoud:
		if shareNear(q.pitches, hum, humSpread) > humShare && (isMains(hum) || !f.isPlayed(levels, hum, loud)) {
			r.hum, r.humGate = hum, quiet+humMargin
		}
	case loud < loudestHum:
		// A take all of one loudness is one long note, unless it is the mains' own.
		if isMains(hum) && shareNear(q.pitches, hum, mainsSpread) > humShare {
			r.hum, r.humGate = hum, loud+humMargin
		}
	}
	return r
}

// isPlayed reports whether the louder frames sound at a pitch too.
func (f *finder) isPlayed(levels []music.Decibels, pitch music.Hertz, loud music.Decibels) bool {
	var pitches []float64
	stride := max(1, len(levels)/(4*quietFrames))
	for n := 0; n < len(levels); n += stride {
		if levels[n] < loud-humBelowLoud {
			continue
		}
		if heard := f.at(n); heard.best > tonalQuiet && len(heard.candidates) > 0 {
			pitches = append(pitches, float64(likeliest(heard.candidates).pitch))
		}
	}
	return shareNear(pitches, pitch, humSpread) > playedShare
}

// playedShare is how many of the loud frames have a pitch that is somebody's note.
const playedShare = 0.04

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

// quietHeard is what quiet frames were found to be.
type quietHeard struct {
	clarity []float64 // of each
	pitches []float64 // of those that have one
	noise   []float64 // levels of those that have none
	soft    []float64 // levels of those that have one
}

// gate is the level below which frames are rests: just above what has no pitch.
func (q quietHeard) gate() music.Decibels {
	if len(q.noise) == 0 {
		return lowestGate
	}
	gate := music.Decibels(dsp.Quantile(q.noise, mostNoise)) + gateAboveQuiet
	if len(q.soft) > len(q.clarity)/10 {
		gate = min(gate, music.Decibels(dsp.Quantile(q.soft, 0.05)))
	}
	return gate
}

// mostNoise leaves out the loudest of the frames without a pitch: breaths, taps.
const mostNoise = 0.8

// listenToQuiet listens to some of the quiet frames.
func (f *finder) listenToQuiet(levels []music.Decibels, quiet music.Decibels) (q quietHeard) {
	var frames []int
	for n, v := range levels {
		if v <= quiet && v >= lowestGate {
			frames = append(frames, n)
		}
	}
	stride := max(1, len(frames)/quietFrames)
	for k := 0; k < len(frames); k += stride {
		heard := f.at(frames[k])
		q.clarity = append(q.clarity, heard.best)
		if len(heard.candidates) > 0 && heard.best > tonalQuiet {
			q.pitches = append(q.pitches, float64(likeliest(heard.candidates).pitch))
			q.soft = append(q.soft, float64(levels[frames[k]]))
		} else {
			q.noise = append(q.noise, float64(levels[frames[k]]))
		}
	}
	return q
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
	return math.Abs(1200*math.Log2(ratio/math.Round(ratio))) < float64(humSpread)
}
