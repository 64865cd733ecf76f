package measure

import (
	"earlychorus/core/ear"
)

// longest is the longest event of some kinds in a note.
func longest(c Case, p playedNote, limit float64, kinds ...ear.EventKind) Reading {
	m := Reading{
		Limit: limit,
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
			m.Value, m.Way = float64(e.Duration), sign(float64(e.Interval))
			m.Came = e.To
			if k == ear.Undertone {
				m.Cause = CauseUndertone
			}
		}
	}
	m.Count = count
	m.Excess = touched(m.Value, limit)
	return m
}
