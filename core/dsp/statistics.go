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
	sorted := slices.Sorted(slices.Values(x))
	at := q * float64(len(sorted)-1)
	low := int(at)
	if low == len(sorted)-1 {
		return sorted[low]
	}
	return sorted[low] + (at-float64(low))*(sorted[low+1]-sorted[low])
}

// Median returns the middle of x; NaN for an empty slice.
func Median(x []float64) float64 { return Quantile(x, 0.5) }

// pointsForSlope bounds the pairs TheilSen looks at.
const pointsForSlope = 256

// TheilSen returns the median slope over all pairs of points, which a few
// wild points cannot move; 0 for fewer than two. Beyond 256 points it takes
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
