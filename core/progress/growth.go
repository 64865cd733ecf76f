package progress

import (
	"cmp"
	"math"
	"slices"

	"earlychorus/core/dsp"
	"earlychorus/core/fmt"
)

// Week is a player's week, with the takes behind each value.
type Week struct {
	From       int      `json:"from_day" doc:"the week's first day, in the days of the notes"`
	Takes      []string `json:"takes" nullable:"false"`
	Days       int      `json:"days" doc:"days played"`
	BestHold   float64  `json:"best_hold_s" doc:"of the notes held as long as the player could; 0 where there were none"`
	Centre     float64  `json:"centre_cents" doc:"median distance from the target, either way"`
	Steadiness float64  `json:"steadiness_cents" doc:"median"`
	Notes      int      `json:"notes" doc:"that could be measured"`
}

// Growth is how a player has changed.
type Growth struct {
	Weeks      []Week `json:"weeks" nullable:"false"`
	Hold       Line   `json:"hold"`
	Centre     Line   `json:"centre"`
	Steadiness Line   `json:"steadiness"`
}

// Line is one value's way through the weeks, and what may be said of it.
type Line struct {
	Trend *Trend `json:"trend,omitempty"`
	Says  string `json:"says"`
}

// GrowthOf works a player's weeks out of their own notes, with the trend of each
// value by day.
func GrowthOf(notes []Note) Growth {
	weeks := map[int][]Note{}
	for _, n := range notes {
		monday := n.Day - ((n.Day%7)+7)%7
		weeks[monday] = append(weeks[monday], n)
	}
	out := Growth{Weeks: []Week{}}
	for from, list := range weeks {
		out.Weeks = append(out.Weeks, weekOf(from, list))
	}
	slices.SortFunc(out.Weeks, func(a, b Week) int { return cmp.Compare(a.From, b.From) })
	holds, centres, steady := byDay(notes)
	out.Hold = line(holds, 1, "Longest holds", "s", "longer", "shorter")
	out.Centre = line(centres, -1, "Notes", "cents", "farther from the middle", "nearer to the middle")
	out.Steadiness = line(steady, -1, "Notes", "cents", "less steady", "steadier")
	return out
}

func weekOf(from int, list []Note) Week {
	w := Week{From: from, Takes: []string{}}
	days := map[int]bool{}
	var centres, steady []float64
	for _, n := range list {
		days[n.Day] = true
		if !slices.Contains(w.Takes, n.Take) {
			w.Takes = append(w.Takes, n.Take)
		}
		if n.Free {
			w.BestHold = max(w.BestHold, float64(n.Held))
		}
		if n.Trusted {
			centres, steady = append(centres, math.Abs(float64(n.Centre))), append(steady, float64(n.Steadiness))
		}
	}
	w.Days, w.Notes = len(days), len(centres)
	if len(centres) > 0 {
		w.Centre, w.Steadiness = dsp.Median(centres), dsp.Median(steady)
	}
	return w
}

// byDay makes a point a day of each value: many notes of one day are one
// evening's practice, not many proofs.
func byDay(notes []Note) (holds, centres, steady []Point) {
	type day struct {
		hold            float64
		centres, steady []float64
	}
	days := map[int]*day{}
	for _, n := range notes {
		d := days[n.Day]
		if d == nil {
			d = &day{}
			days[n.Day] = d
		}
		if n.Free {
			d.hold = max(d.hold, float64(n.Held))
		}
		if n.Trusted {
			d.centres, d.steady = append(
				d.centres,
				math.Abs(float64(n.Centre)),
			), append(
				d.steady,
				float64(n.Steadiness),
			)
		}
	}
	for at, d := range days {
		if d.hold > 0 {
			holds = append(holds, Point{float64(at), d.hold})
		}
		if len(d.centres) > 0 {
			centres = append(centres, Point{float64(at), dsp.Median(d.centres)})
			steady = append(steady, Point{float64(at), dsp.Median(d.steady)})
		}
	}
	return holds, centres, steady
}

// line says a trend in words a family reads. good is the sign of growth.
func line(points []Point, good float64, what, unit, up, down string) Line {
	t, ok := TrendOf(points)
	if len(points) == 0 {
		return Line{Says: "Nothing to say yet."}
	}
	if !ok {
		days := "days"
		if len(points) == 1 {
			days = "day"
		}
		return Line{Says: fmt.Sprintf("%d %s so far: too few to say.", len(points), days)}
	}
	out := Line{Trend: &t}
	direction := up
	if t.PerWeek < 0 {
		direction = down
	}
	switch {
	case !t.Clear:
		out.Says = fmt.Sprintf("No clear change yet, over %d days.", t.Points)
	case t.PerWeek*good > 0:
		out.Says = fmt.Sprintf(
			"%s are %s by %.1f %s a week, over %d days.",
			what,
			direction,
			math.Abs(t.PerWeek),
			unit,
			t.Points,
		)
	default:
		out.Says = fmt.Sprintf(
			"%s are %s by %.1f %s a week, over %d days. A harder step does that too.",
			what,
			direction,
			math.Abs(t.PerWeek),
			unit,
			t.Points,
		)
	}
	return out
}
