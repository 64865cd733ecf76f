package contour

import (
	"math"

	"earlychorus/core/dsp"
)

// A listener holds one take's sound cut down to what each range of pitches
// needs: high notes a high rate and short windows, so that quick changes do
// not blur; low notes long windows, so that enough periods fit.
type listener struct {
	x      []float64 // the sound at rate, its clicks softened
	rate   float64
	scales []scale // from high pitches to low ones
	clicks []stretch
}

// scale answers for the lags from from to to, at its own rate.
type scale struct {
	x          []float64
	rate       float64
	correlator *dsp.Correlator
	from, to   int // lags
}

// stretch is a part of the take, in seconds.
type stretch struct{ from, to float64 }

const (
	// The sound is cut down to a low rate for low instruments and a high one for
	// high ones: enough samples a period for a peak to be read between them, and
	// such that a window and its lags just fit a transform's length.
	slowRate       = 6000
	fastRate       = 12000
	samplesAPeriod = 4.3 // of the highest note
	// Low scales get by with less: their notes have a dozen harmonics below this.
	lowRate = 4000
	// passedShare, of the rate after cutting down, is what the filter passes whole. What
	// folds back lies above that.
	passedShare = 0.25
	dcCorner    = 15 // Hz, below every note
)

const (
	// A window holds this many periods of the lowest pitch its scale answers for.
	periodsInWindow = 2.5
	shortestWindow  = 0.030 // seconds: shorter ones are at the mercy of noise
	// Pitches above the first split share the short window; each scale below
	// spans an octave. An ear that goes only a little below needs no other.
	firstSplit = 110 // Hz
	nearSplit  = 83
)

// factor is how far a sound of the given rate is cut down for this ear.
func (e Ear) factor(rate int) int {
	want := slowRate
	if samplesAPeriod*float64(e.Highest) > slowRate {
		want = fastRate
	}
	return max(1, int(math.Round(float64(rate)/float64(want))))
}

// lowFactor is how much farther the scales below the first are.
func (l *listener) lowFactor() int { return max(1, int(math.Round(l.rate/lowRate))) }

// addScales lays the windows out, from high pitches to low ones.
func (e Ear) addScales(l *listener) {
	top, rate := float64(e.Highest), l.rate
	for split := float64(firstSplit); ; split /= 2 {
		bottom := max(split, float64(e.Lowest))
		if split == firstSplit && e.Lowest >= nearSplit {
			bottom = float64(e.Lowest)
		}
		l.add(rate, bottom, top)
		if bottom <= float64(e.Lowest) {
			return
		}
		top, rate = bottom, l.rate/float64(l.lowFactor())
	}
}

func (l *listener) add(rate, bottom, top float64) {
	length := int(max(shortestWindow, periodsInWindow/bottom) * rate)
	from, to := max(2, int(rate/top)), int(math.Ceil(rate/bottom))
	l.scales = append(l.scales, scale{
		rate:       rate,
		correlator: dsp.NewCorrelator(length, to+1+dsp.PeakReach),
		from:       from,
		to:         to,
	})
}

// frame returns the scale's samples centred on frame n; beyond the ends there
// is silence.
func (s *scale) frame(n int) []float64 {
	length := s.correlator.Length()
	from := int(math.Round(float64(n)*float64(Hop)*s.rate)) - length/2
	if from >= 0 && from+length <= len(s.x) {
		return s.x[from : from+length]
	}
	padded := make([]float64, length)
	for k := max(0, -from); k < length && from+k < len(s.x); k++ {
		padded[k] = s.x[from+k]
	}
	return padded
}
