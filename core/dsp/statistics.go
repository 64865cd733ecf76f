package dsp

import (
	"math"
	"slices"
)

// Quantile returns the value below which the share q (0 to 1) of x lies,
// interpolated between neighbours; NaN for an empty slice. x is not changed.
func Quantile(x []float64, q float64) float64 {
	if len(x) == 0 {
		return math.NaN()
	}
	var few [32]float64 // most are asked of so few that nothing need be set aside
	y := append(few[:0], x...)
	at := q * float64(len(y)-1)
	low := int(at)
	v := nth(y, low)
	if low == len(y)-1 {
		return v
	}
	next := y[low+1]
	for _, v := range y[low+2:] { // what is right of the n-th is no smaller
		if v < next { // min is a call for each, in a browser
			next = v
		}
	}
	return v + (at-float64(low))*(next-v)
}

// nth returns what would lie at n if x were sorted, and leaves nothing larger left of it
// and nothing smaller right of it (C. A. R. Hoare, "Find", Communications of the ACM 4,
// 1961). Sorting all of a long take's frames for each of its medians was half of what its
// player waited for.
func nth(x []float64, n int) float64 {
	if slices.ContainsFunc(x, math.IsNaN) {
		slices.Sort(x)
		return x[n]
	}
	for left, right := 0, len(x)-1; left < right; {
		pivot := middleOf(x[left], x[(left+right)/2], x[right])
		i, j := left, right
		for i <= j {
			for x[i] < pivot {
				i++
			}
			for x[j] > pivot {
				j--
			}
			if i <= j {
				x[i], x[j] = x[j], x[i]
				i, j = i+1, j-1
			}
		}
		switch {
		case n <= j:
			right = j
		case n >= i:
			left = i
		default:
			return x[n]
		}
	}
	return x[n]
}

// middleOf is the median of three.
func middleOf(a, b, c float64) float64 {
	if a > b {
		a, b = b, a
	}
	switch {
	case c < a:
		return a
	case c > b:
		return b
	}
	return c
}

// Median returns the middle of x; NaN for an empty slice.
func Median(x []float64) float64 { return Quantile(x, 0.5) }

// pointsForSlope bounds the pairs TheilSen looks at.
const pointsForSlope = 128

// TheilSen returns the median slope over all pairs of points, which a few
// wild points cannot move; 0 for fewer than two. Beyond 128 points it takes
// evenly spaced ones. t must rise. Source: P. K. Sen, J. Am. Stat. Assoc.
// 63 (1968), pp. 1379–1389.
func TheilSen(t, y []float64) float64 {
	stride := (len(t) + pointsForSlope - 1) / pointsForSlope
	var slopes []float64
	for i := 0; i < len(t); i += max(1, stride) {
		for j := i + stride; j < len(t); j += max(1, stride) {
			slopes = append(slopes, (y[j]-y[i])/(t[j]-t[i]))
		}
	}
	if len(slopes) == 0 {
		return 0
	}
	return Median(slopes)
}

// Slope returns the least-squares slope of y over x; 0 where x does not vary.
// Both have one length. (gonum's regression would bring its matrices into the
// browser.)
func Slope(x, y []float64) float64 {
	var meanX, meanY, xy, xx float64
	for n := range x {
		meanX += x[n] / float64(len(x))
		meanY += y[n] / float64(len(x))
	}
	for n := range x {
		xy += (x[n] - meanX) * (y[n] - meanY)
		xx += (x[n] - meanX) * (x[n] - meanX)
	}
	if xx == 0 {
		return 0
	}
	return xy / xx
}

// Cubic reads a sequence between b and c, at share w of the way from b to c,
// by the cubic through a, b, c and d.
func Cubic(a, b, c, d, w float64) float64 {
	k := cubicAt(w)
	return k[0]*a + k[1]*b + k[2]*c + k[3]*d
}

// cubicAt is how much each of the four counts at share w.
func cubicAt(w float64) [4]float64 {
	return [4]float64{
		-w * (w - 1) * (w - 2) / 6,
		(w + 1) * (w - 1) * (w - 2) / 2,
		-(w + 1) * w * (w - 2) / 2,
		(w + 1) * w * (w - 1) / 6,
	}
}

// LessPeriod fills out with x from first on less x a period before, which need not be
// whole: what repeats with the period is gone, and what does not is twice as strong.
// period is at least 2; out is 0 where x does not reach back so far.
func LessPeriod(out, x []float64, first int, period float64) {
	back := int(math.Ceil(period))
	k := cubicAt(float64(back) - period) // the same for all: period is
	for n := range out {
		i := first + n - back
		if i < 1 || i+2 >= len(x) {
			out[n] = 0
			continue
		}
		b := x[i-1 : i+3]
		out[n] = x[first+n] - (k[0]*b[0] + k[1]*b[1] + k[2]*b[2] + k[3]*b[3])
	}
}
