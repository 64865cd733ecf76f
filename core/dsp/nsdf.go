package dsp

import "gonum.org/v1/gonum/dsp/fourier"

// Correlator computes normalised square difference functions of one frame
// length. It keeps scratch memory, so each goroutine needs its own.
type Correlator struct {
	length, lags int
	fft          *fourier.FFT
	padded       []float64
	spectrum     []complex128
	sums         []float64 // sums[n] is the energy of the first n samples
}

// NewCorrelator prepares frames of the given length and lags 0 to lags-1.
func NewCorrelator(length, lags int) *Correlator {
	size := length + lags // no lag of interest wraps round
	for !smooth(size) {
		size++
	}
	return &Correlator{
		length: length, lags: lags, fft: fourier.NewFFT(size), padded: make([]float64, size),
		spectrum: make([]complex128, size/2+1), sums: make([]float64, length+1),
	}
}

// smooth reports whether an FFT of size n is fast: even, no prime above 5.
func smooth(n int) bool {
	if n%2 != 0 {
		return false
	}
	for _, p := range []int{2, 3, 5} {
		for n%p == 0 {
			n /= p
		}
	}
	return n == 1
}

// Length returns the frame length.
func (c *Correlator) Length() int { return c.length }

// NSDF fills out[τ], for each lag τ < lags, with
//
//	n(τ) = 2·Σ x[j]·x[j+τ] / Σ (x[j]² + x[j+τ]²), j from 0 to length−1−τ,
//
// which is 1 for a perfect period and 1 minus the normalised squared
// difference in general; 0 where there is no energy. len(frame) must be the
// length. Source: P. McLeod and G. Wyvill, "A smarter way to find pitch",
// ICMC 2005.
func (c *Correlator) NSDF(frame, out []float64) {
	copy(c.padded, frame)
	clear(c.padded[len(frame):])
	c.fft.Coefficients(c.spectrum, c.padded)
	for n, v := range c.spectrum {
		c.spectrum[n] = complex(real(v)*real(v)+imag(v)*imag(v), 0)
	}
	c.fft.Sequence(c.padded, c.spectrum)
	scale := 1 / float64(len(c.padded))
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
		out[lag] = 2 * c.padded[lag] * scale / energy
	}
}

// Peak returns the place and height of the parabola through y[n-1], y[n] and
// y[n+1]; at the ends of y, n itself.
func Peak(y []float64, n int) (place, height float64) {
	if n <= 0 || n >= len(y)-1 {
		return float64(n), y[n]
	}
	a, b, c := y[n-1], y[n], y[n+1]
	bend := a - 2*b + c
	if bend >= 0 {
		return float64(n), b
	}
	shift := 0.5 * (a - c) / bend
	return float64(n) + shift, b - 0.25*(a-c)*shift
}
