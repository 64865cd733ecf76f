package dsp

import "math"

// reach is how many samples on either side of a point a band-limited reading
// uses.
const reach = 4

// quarters are the taps that read a band-limited sequence a quarter and a half
// sample beside a point: a sinc under a Hann window. quarters[q][k] weighs
// sample k−reach+1 for the moment q/4.
var quarters = func() (out [3][2 * reach]float64) {
	for q := range out {
		for k := range out[q] {
			d := float64(q)/4 - float64(k-reach+1)
			sinc := 1.
			if d != 0 {
				sinc = math.Sin(math.Pi*d) / (math.Pi * d)
			}
			out[q][k] = sinc * (0.5 + 0.5*math.Cos(math.Pi*d/(reach+0.5)))
		}
	}
	return out
}()

// PeakReach is how many samples beyond a peak Peak needs to read.
const PeakReach = reach

// Peak returns the place and height of the peak of the even, band-limited
// function y (y[-n] = y[n]) near its local maximum n. A parabola through the
// samples alone would put narrow peaks that fall between them too low: up to a
// tenth, enough to take twice a period for the period. n must be at least
// PeakReach from the end of y.
func Peak(y []float64, n int) (place, height float64) {
	var v [5]float64 // at n−½, n−¼, n, n+¼, n+½
	v[0], v[1], v[2], v[3], v[4] = between(y, n, -2), between(y, n, -1), y[n], between(y, n, 1), between(y, n, 2)
	top := 2
	for k := range v {
		if v[k] > v[top] {
			top = k
		}
	}
	top = max(1, min(3, top))
	a, b, c := v[top-1], v[top], v[top+1]
	place, height = float64(n)+float64(top-2)/4, b
	if bend := a - 2*b + c; bend < 0 {
		shift := max(-1, min(1, 0.5*(a-c)/bend))
		place += shift / 4
		height = b - 0.25*(a-c)*shift
	}
	return place, height
}

// between reads y at n + quarter/4, quarter from -2 to 2.
func between(y []float64, n, quarter int) float64 {
	step := 1
	if quarter < 0 {
		step, quarter = -1, -quarter
	}
	taps := &quarters[quarter]
	var sum float64
	for k, w := range taps {
		at := n + step*(k-reach+1)
		if at < 0 {
			at = -at
		}
		sum += w * y[at]
	}
	return sum
}
