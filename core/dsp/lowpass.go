// Package dsp holds filters, correlations and order statistics on plain
// slices.
package dsp

import (
	"math"

	"gonum.org/v1/gonum/dsp/window"
)

// Decimate keeps every factor-th sample of x behind a low pass that leaves
// frequencies up to pass (a fraction of the new rate, below 0.5) as they are
// and lets nothing fold back: a harmonic folded down is none any more, and
// spoils the period. The filter is symmetric, so sample n of the result lies at
// sample n·factor of x. x is not changed.
func Decimate(x []float64, factor int, pass float64) []float64 {
	stop := 0.5
	taps := lowpass((pass+stop)/2/float64(factor), tapsFor((stop-pass)/float64(factor)))
	half := len(taps) / 2
	out := make([]float64, (len(x)+factor-1)/factor)
	for n := range out {
		at := n*factor - half
		if at >= 0 && at+len(taps) <= len(x) {
			out[n] = symmetric(taps, x[at:at+len(taps)])
			continue
		}
		for k, c := range taps {
			if at+k >= 0 && at+k < len(x) {
				out[n] += c * x[at+k]
			}
		}
	}
	return out
}

// symmetric is the sum of taps times x, where taps read the same backwards:
// half the multiplications. Both have the same, odd, length.
func symmetric(taps, x []float64) float64 {
	half := len(taps) / 2
	x = x[:len(taps)]
	sum := taps[half] * x[half]
	for k, j := 0, len(taps)-1; k < half; k, j = k+1, j-1 {
		sum += taps[k] * (x[k] + x[j])
	}
	return sum
}

// tapsFor gives a transition band of the given width, a fraction of the rate:
// about 5.5 / width taps for a Blackman window (-74 dB).
func tapsFor(width float64) int { return int(5.5/width)/2*2 + 1 }

// lowpass returns a windowed sinc of odd length with unit gain at 0 Hz.
func lowpass(cutoff float64, length int) []float64 {
	taps := make([]float64, length)
	middle := float64(length-1) / 2
	for n := range taps {
		t := float64(n) - middle
		if t == 0 {
			taps[n] = 2 * cutoff
			continue
		}
		taps[n] = math.Sin(2*math.Pi*cutoff*t) / (math.Pi * t)
	}
	window.Blackman(taps)
	var sum float64
	for _, c := range taps {
		sum += c
	}
	for n := range taps {
		taps[n] /= sum
	}
	return taps
}

// BlockDC subtracts a slow average (a one-pole high pass at corner, a
// fraction of the rate) from x in place.
func BlockDC(x []float64, corner float64) {
	r := 1 - 2*math.Pi*corner
	var before, y float64
	for n, v := range x {
		y = v - before + r*y
		before = v
		x[n] = y
	}
}
