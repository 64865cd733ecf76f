package dsp

// Correlator computes normalised square difference functions of frames of one
// length, two frames at a time. It keeps scratch memory, so each goroutine
// needs its own.
type Correlator struct {
	length, lags int
	fft          *FFT
	re, im       []float64
	powerA       []float64 // of the first frame, by frequency; the second's is powerB
	powerB       []float64
	sums         []float64 // sums[n] is the energy of the first n samples
}

// NewCorrelator prepares frames of the given length and lags 0 to lags-1.
func NewCorrelator(length, lags int) *Correlator {
	size := 4
	for size < length+lags { // no lag of interest wraps round
		size *= 2
	}
	return &Correlator{
		length: length,
		lags:   lags,
		fft:    NewFFT(size),
		re:     make([]float64, size),
		im:     make([]float64, size),
		powerA: make([]float64, size),
		powerB: make([]float64, size),
		sums:   make([]float64, length+1),
	}
}

// Length returns the frame length.
func (c *Correlator) Length() int { return c.length }

// NSDF fills outA[τ], for each lag τ < lags, with
//
//	n(τ) = 2·Σ x[j]·x[j+τ] / Σ (x[j]² + x[j+τ]²), j from 0 to length−1−τ,
//
// of frame a, which is 1 for a perfect period and 1 minus the normalised
// squared difference in general; 0 where there is no energy. It does the same
// for frame b and outB; b and outB may be nil. Frames have the length. Source:
// P. McLeod and G. Wyvill, "A smarter way to find pitch", ICMC 2005.
//
// Two real frames go through one complex transform, as its real and its
// imaginary part. Their power spectra come apart by symmetry, and being even
// go back the same way.
func (c *Correlator) NSDF(a, b, outA, outB []float64) {
	copy(c.re, a)
	clear(c.re[len(a):])
	copy(c.im, b)
	clear(c.im[len(b):])
	c.fft.Transform(c.re, c.im)
	c.separate()
	c.fft.Transform(c.powerA, c.powerB)
	c.normalise(a, c.powerA, outA)
	if b != nil {
		c.normalise(b, c.powerB, outB)
	}
}

// separate turns the transform of a + j·b into the power spectra of a and b.
func (c *Correlator) separate() {
	size := len(c.re)
	for k := 0; k <= size/2; k++ {
		mirror := (size - k) % size
		p, q := c.fft.Place(k), c.fft.Place(mirror)
		ar, ai := c.re[p]+c.re[q], c.im[p]-c.im[q]
		br, bi := c.im[p]+c.im[q], c.re[q]-c.re[p]
		c.powerA[k] = (ar*ar + ai*ai) / 4
		c.powerB[k] = (br*br + bi*bi) / 4
		c.powerA[mirror], c.powerB[mirror] = c.powerA[k], c.powerB[k]
	}
}

func (c *Correlator) normalise(frame, correlation, out []float64) {
	scale := 1 / float64(len(c.re))
	for n, v := range frame {
		c.sums[n+1] = c.sums[n] + v*v
	}
	total := c.sums[c.length]
	for lag := range c.lags {
		energy := c.sums[c.length-lag] + total - c.sums[lag]
		if energy < 1e-12*total || energy == 0 {
			out[lag] = 0
			continue
		}
		out[lag] = 2 * correlation[c.fft.Place(lag)] * scale / energy
	}
}
