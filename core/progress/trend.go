package progress

import (
	"math"
	"slices"
)

// Point is a value on a day.
type Point struct {
	Day   float64
	Value float64
}

// Trend is how a value changes, in its own unit a week.
type Trend struct {
	PerWeek float64 `json:"per_week" doc:"Theil–Sen slope"`
	Low     float64 `json:"low" doc:"of the interval that holds the true slope 19 times in 20"`
	High    float64 `json:"high"`
	Clear   bool    `json:"clear" doc:"the interval lies on one side of nothing"`
	Points  int     `json:"points"`
}

const (
	week       = 7.
	normal95   = 1.96
	mostPoints = 400 // pairs grow with their square
)

// TrendOf returns the median of all slopes between two points and Sen's interval
// for it: the slopes at the ranks that Kendall's statistic allows (Sen 1968,
// Estimates of the regression coefficient based on Kendall's tau, JASA 63). Ties
// in time are left out of the pairs, and of the variance as Sen gives it. ok is
// false under Fewest points or where all lie on one day. Of more than 400
// points the latest count.
func TrendOf(points []Point) (t Trend, ok bool) {
	points = slices.Clone(points)
	slices.SortStableFunc(points, func(a, b Point) int {
		switch {
		case a.Day < b.Day:
			return -1
		case a.Day > b.Day:
			return 1
		}
		return 0
	})
	points = points[max(0, len(points)-mostPoints):]
	var slopes []float64
	for i, a := range points {
		for _, b := range points[i+1:] {
			if b.Day > a.Day {
				slopes = append(slopes, week*(b.Value-a.Value)/(b.Day-a.Day))
			}
		}
	}
	if len(points) < Fewest || len(slopes) == 0 {
		return Trend{Points: len(points)}, false
	}
	slices.Sort(slopes)
	reach := normal95 * math.Sqrt(kendallVariance(points))
	n := float64(len(slopes))
	t = Trend{
		PerWeek: middle(slopes),
		Points:  len(points),
		Low:     rank(slopes, (n-reach)/2-1),
		High:    rank(slopes, (n+reach)/2),
	}
	t.Clear = t.Low > 0 || t.High < 0
	return t, true
}

// kendallVariance is that of Kendall's S, with ties in time.
func kendallVariance(sorted []Point) float64 {
	term := func(n float64) float64 { return n * (n - 1) * (2*n + 5) }
	v := term(float64(len(sorted)))
	for from := 0; from < len(sorted); {
		to := from
		for to < len(sorted) && sorted[to].Day == sorted[from].Day {
			to++
		}
		v -= term(float64(to - from))
		from = to
	}
	return v / 18
}

func rank(sorted []float64, at float64) float64 {
	return sorted[min(len(sorted)-1, max(0, int(math.Round(at))))]
}

func middle(sorted []float64) float64 {
	n := len(sorted)
	if n%2 == 1 {
		return sorted[n/2]
	}
	return (sorted[n/2-1] + sorted[n/2]) / 2
}
