package contour

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// candidate is a pitch one frame may have.
type candidate struct {
	pitch   music.Hertz
	clarity float64 // height of its peak in the square difference function
	mass    float64 // probability that the frame has this period
}

// The ear works on sound cut down to about this rate: twice what the highest
// note's second harmonic needs, so that peaks are round enough for a parabola.
const (
	workingRate   = 16000
	workingCutoff = 4500 // Hz
	dcCorner      = 15   // Hz, below every note
)

// A window holds at least this many periods of the lowest pitch it answers for.
const periodsInWindow = 2.5

// The short window answers from splitPitch up, so that quick changes of
// middle and high notes do not blur; below, a long one takes over.
const (
	splitPitch  = 110 // Hz
	shortWindow = 0.030
)

// usableLags is the share of a window within which overlaps are long enough
// to trust.
const usableLags = 0.6

// scale is one window length and the lags it answers for.
type scale struct {
	correlator *dsp.Correlator
	from, to   int // lags
	nsdf       []float64
}

// listener finds the candidates of one take's frames.
type listener struct {
	x      []float64 // decimated sound
	rate   float64
	scales []scale // short to long
}

func (e Ear) newListener(m audio.Mono) *listener {
	factor := max(1, m.Rate/workingRate)
	l := &listener{rate: float64(m.Rate) / float64(factor)}
	l.x = dsp.Decimate(m.Samples, factor, workingCutoff/float64(m.Rate))
	dsp.BlockDC(l.x, dcCorner/l.rate)
	shortest := max(2, int(l.rate/float64(e.Highest)))
	longest := int(math.Ceil(l.rate / float64(e.Lowest)))
	if e.Lowest >= splitPitch {
		l.add(max(shortWindow, periodsInWindow/float64(e.Lowest)), shortest, longest)
		return l
	}
	split := int(l.rate / splitPitch)
	l.add(shortWindow, shortest, split)
	l.add(periodsInWindow/float64(e.Lowest), split, longest)
	return l
}

func (l *listener) add(seconds float64, from, to int) {
	length := int(seconds * l.rate)
	lags := max(to+3, int(usableLags*float64(length)))
	l.scales = append(l.scales, scale{dsp.NewCorrelator(length, lags), from, to, make([]float64, lags)})
}

// candidates returns the likely pitches of frame n, from high to low.
func (l *listener) candidates(n int) []candidate {
	var out []candidate
	for s := range l.scales {
		sc := &l.scales[s]
		frame := l.frame(n, sc.correlator.Length())
		sc.correlator.NSDF(frame, sc.nsdf)
		out = sc.peaks(out, l.rate)
	}
	weigh(out)
	return out
}

// frame returns the samples centred on frame n; beyond the ends there is silence.
func (l *listener) frame(n, length int) []float64 {
	from := int(math.Round(float64(n)*float64(Hop)*l.rate)) - length/2
	if from >= 0 && from+length <= len(l.x) {
		return l.x[from : from+length]
	}
	padded := make([]float64, length)
	for k := max(0, -from); k < length && from+k < len(l.x); k++ {
		padded[k] = l.x[from+k]
	}
	return padded
}

// faintest is the lowest peak worth carrying along.
const faintest = 0.35

// peaks appends the scale's peaks. Lags before the first zero crossing belong
// to the peak at lag 0 and are passed over.
func (s *scale) peaks(out []candidate, rate float64) []candidate {
	lag := 1
	for lag < s.to && s.nsdf[lag] > 0 {
		lag++
	}
	for lag = max(lag, s.from); lag <= s.to; lag++ {
		y := s.nsdf[lag]
		if y < faintest || y < s.nsdf[lag-1] || y <= s.nsdf[lag+1] {
			continue
		}
		place, height := dsp.Peak(s.nsdf, lag)
		out = append(out, candidate{pitch: music.Hertz(rate / s.refine(place)), clarity: min(1, height)})
	}
	return out
}

// refine follows a period to its highest multiple inside the window: the
// error of a peak's place is shared among as many periods as fit.
func (s *scale) refine(period float64) float64 {
	last := float64(len(s.nsdf) - 2)
	best := period
	for k := 2.; k*best < last; k++ {
		near := int(math.Round(k * best))
		reach := max(1, int(best/8))
		top := near
		for n := max(1, near-reach); n <= min(len(s.nsdf)-2, near+reach); n++ {
			if s.nsdf[n] > s.nsdf[top] {
				top = n
			}
		}
		place, height := dsp.Peak(s.nsdf, top)
		if height < faintest || math.Abs(place/k-best) > best/20 {
			break
		}
		best = place / k
	}
	return best
}

// weigh gives each candidate the probability that it is the period: the chance
// that YIN's threshold, drawn from a Beta(2, 18) prior (mean 0.1), falls
// between its dip and the deepest dip of any shorter period, so that the
// first dip deep enough wins. Source: Mauch and Dixon 2014, section 2.1.
func weigh(c []candidate) {
	deepest := 1.
	for n := range c {
		dip := max(0, 1-c[n].clarity)
		if dip < deepest {
			c[n].mass = thresholdBelow(deepest) - thresholdBelow(dip)
			deepest = dip
		}
	}
}

// thresholdBelow is the distribution function of Beta(2, 18):
// 1 − (1−x)^18 · (1 + 18x).
func thresholdBelow(x float64) float64 {
	return 1 - math.Pow(1-x, 18)*(1+18*x)
}
