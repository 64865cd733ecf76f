// Package dsp holds filters, correlations and order statistics on plain
// slices.
package dsp

import (
	"math"

	"gonum.org/v1/gonum/dsp/window"
)

// Decimate low-passes x at cutoff (a fraction of its own rate, below
// 0.5/factor) and keeps every factor-th sample. The filter is symmetric, so
// sample n of the result lies at sample n·factor of x. x is not changed.
func Decimate(x []float64, factor int, cutoff float64) []float64 {
	taps := lowpass(cutoff, tapsFor(cutoff))
	half := len(taps) / 2
	out := make([]float64, (len(x)+factor-1)/factor)
	for n := range out {
		at := n*factor - half
		from, to := max(0, -at), min(len(taps), len(x)-at)
		var sum float64
		for k := from; k < to; k++ {
			sum += taps[k] * x[at+k]
		}
		out[n] = sum
	}
	return out
}

// tapsFor gives a transition band as wide as a third of the cutoff: about
// 5.5 / width taps for a Blackman window (-74 dB).
func tapsFor(cutoff float64) int { return int(5.5/(cutoff/3))/2*2 + 1 }

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
