package measure

import (
	"fmt"

	"earlychorus/core/ear"
)

// longest is the longest event of some kinds in a note.
func longest(c Case, p playedNote, label, wanted string, limit float64, kinds ...ear.EventKind) Reading {
	m := Reading{
		Label:  label,
		Limit:  limit,
		Text:   "none",
		Wanted: wanted,
	}
	count := 0
	for _, e := range eventsOf(c.Analysis, p.n) {
		for _, k := range kinds {
			if e.Kind != k || float64(e.Duration) < limit {
				continue
			}
			count++
			if float64(e.Duration) <= m.Value {
				continue
			}
			m.Value, m.Direction = float64(e.Duration), sign(float64(e.Interval))
			m.Text = fmt.Sprintf("%.2f s", e.Duration)
			if e.Interval != 0 {
				m.Text = fmt.Sprintf("%.2f s %s", e.Duration, Interval(e.Interval))
			}
			if k == ear.Undertone {
				m.Cause = CauseUndertone
			}
		}
	}
	if count > 1 {
		m.Text = fmt.Sprintf("%d, the longest %s", count, m.Text)
	}
	m.Excess = touched(m.Value, limit)
	return m
}
