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
	mass    float64 // probability that this, among the frame's candidates, is the period
}

// frame is the candidates around one moment, and the height of the clearest
// peak seen there, whether or not it lies where its scale answers.
type frame struct {
	candidates []candidate
	best       float64
}

const (
	// faintest is the lowest peak worth carrying along; faintestShare, the lowest
	// against its function's best.
	faintest      = 0.25
	faintestShare = 0.6
	leastCarried  = 0.01 // of mass
	mostPeaks     = 64
)

// finder finds the candidates of two frames at a time, once: what a frame's are depends
// on nothing but the sound. It keeps scratch memory.
type finder struct {
	l     *listener
	a, b  [][]float64 // a function for each scale
	peaks []candidate
	heard []frame // by number
	known []bool  // which of them were listened to
}

func (l *listener) newFinder() *finder {
	f := &finder{l: l, peaks: make([]candidate, 0, mostPeaks)}
	for _, s := range l.scales {
		f.a = append(f.a, make([]float64, s.to+1+dsp.PeakReach))
		f.b = append(f.b, make([]float64, s.to+1+dsp.PeakReach))
	}
	return f
}

// at returns the candidates of frame n.
func (f *finder) at(n int) frame {
	if n >= len(f.known) || !f.known[n] {
		f.listenTo(n, partner(n))
	}
	return f.heard[n]
}

// partner is the frame that is listened to together with frame n. It must not depend on
// what else is asked: the rounding of one is the other's.
func partner(n int) int {
	if n%2 == 0 {
		return n ^ widestStride
	}
	return n ^ 2
}

func (f *finder) listenTo(n, m int) {
	n, m = min(n, m), max(n, m)
	if more := m + 1 - len(f.known); more > 0 {
		f.known = append(f.known, make([]bool, more)...)
		f.heard = append(f.heard, make([]frame, more)...)
	}
	for k := range f.l.scales {
		s := &f.l.scales[k]
		s.correlator.NSDF(s.frame(n), s.frame(m), f.a[k], f.b[k])
	}
	f.heard[n], f.heard[m] = f.gather(f.a, nil), f.gather(f.b, nil)
	f.known[n], f.known[m] = true, true
}

// gather takes each scale's candidates, from the lowest scale up. A scale
// weighs all the peaks it sees, so that a multiple of a high note's period is
// not taken for a low note, but answers only for its own range; what it does
// not claim is left to the scales above.
func (f *finder) gather(functions [][]float64, out []candidate) frame {
	left := 1.
	r := frame{candidates: out}
	for k := len(f.l.scales) - 1; k >= 0; k-- {
		s := &f.l.scales[k]
		f.peaks = s.peaks(functions[k], f.peaks[:0])
		weigh(f.peaks)
		claimed := 0.
		for _, c := range f.peaks {
			r.best = max(r.best, c.clarity)
			if lag := s.rate / float64(c.pitch); lag < float64(s.from) || lag > float64(s.to) {
				continue
			}
			claimed += c.mass
			c.mass *= left
			if c.mass >= leastCarried {
				r.candidates = append(r.candidates, c)
			}
		}
		left *= 1 - min(1, claimed)
	}
	return r
}

// peaks appends the peaks of the scale's function. Lags before the first zero
// crossing belong to the peak at lag 0 and are passed over.
func (s *scale) peaks(y []float64, out []candidate) []candidate {
	lag := 1
	for lag < s.to && y[lag] > 0 {
		lag++
	}
	for ; lag <= s.to; lag++ {
		v := y[lag]
		if v < faintest || v < y[lag-1] || v <= y[lag+1] || len(out) == cap(out) {
			continue
		}
		place, height := dsp.Peak(y, lag)
		out = append(out, candidate{pitch: music.Hertz(s.rate / place), clarity: min(1, height)})
	}
	return out
}

// noiseTolerance widens the prior of weigh where even the clearest peak is
// low: noise then scatters the peaks, and the best of many multiples of the
// period would win by chance.
const noiseTolerance = 4

// weigh gives each peak of a function, from short periods to long ones, the
// probability that it is the period: the chance that a threshold, drawn from a
// Beta(2, 18) prior (mean 0.1), falls between its dip and the deepest dip of any
// shorter period, so that the first dip deep enough wins. Dips are counted from
// the clearest peak, which noise lowers together with the others; whether there
// is a pitch at all is another question. Source: Mauch and Dixon 2014, section
// 2.1, for the prior and the rule.
func weigh(c []candidate) {
	best := 0.
	for _, v := range c {
		best = max(best, v.clarity)
	}
	wide := 1 + noiseTolerance*(1-best)
	deepest := 1.
	for n := range c {
		if c[n].clarity < faintestShare*best {
			continue
		}
		dip := (1 - c[n].clarity/best) / wide
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

// PitchOf returns the likeliest pitch of a short sound taken as one frame, and
// its clarity; 0 for none. It is for sounds already known to be one thing.
func PitchOf(m audio.Mono) (music.Hertz, float64) {
	in := OpenEar.newIntake(m.Rate, false)
	in.hear(m.Samples)
	in.end()
	best := likeliest(in.l.newFinder().at(Index(music.Seconds(m.Seconds() / 2))).candidates)
	return best.pitch, best.clarity
}
