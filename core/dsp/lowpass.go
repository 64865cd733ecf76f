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
//
// Factors of 4 and more are taken in steps where they can be: the first step's
// filter may be short, since it need only keep clean what the last one keeps.
func Decimate(x []float64, factor int, pass float64) []float64 {
	s := NewStream(factor, pass, 0.5)
	return append(s.Push(x), s.End()...)
}

// tapsFor gives a transition band of the given width, a fraction of the rate:
// about 3.3 / width taps for a Hamming window (-53 dB).
func tapsFor(width float64) int { return int(3.3/width)/2*2 + 1 }

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
	window.Hamming(taps)
	var sum float64
	for _, c := range taps {
		sum += c
	}
	for n := range taps {
		taps[n] /= sum
	}
	return taps
}

// RestsBelow is far below anything that is heard. A filter that holds no more is at rest: in a
// muted microphone's zeros it would ring on for ever, in numbers so small that a processor
// takes long over each.
const RestsBelow = 1e-30

// DCBlock subtracts a slow average (a one-pole high pass) from a sound that comes in
// blocks.
type DCBlock struct {
	r         float64
	before, y float64
}

// NewDCBlock passes what lies above corner, a fraction of the rate.
func NewDCBlock(corner float64) DCBlock { return DCBlock{r: 1 - 2*math.Pi*corner} }

// Push filters the next block in place.
func (f *DCBlock) Push(x []float64) {
	for n, v := range x {
		f.y = v - f.before + f.r*f.y
		if math.Abs(f.y) < RestsBelow {
			f.y = 0
		}
		f.before = v
		x[n] = f.y
	}
}
