package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/music"
)

// Measures of air alone are of the whole step: the worst of its rounds speaks.

func worst(all []Reading) []Reading {
	var out Reading
	for n, m := range all {
		if n == 0 || m.Excess > out.Excess {
			out = m
		}
	}
	if len(all) == 0 {
		return nil
	}
	return whole(out)
}

func airs(c Case, of func(a ear.Air) Reading) (out []Reading) {
	for n, a := range c.Analysis.Airs {
		m := of(a)
		if len(c.Analysis.Airs) > 1 {
			m.Count = n + 1 // which round
		}
		out = append(out, m)
	}
	return out
}

func burstSlack(a ear.Air) float64 {
	if a.Wanted > 0 {
		return float64(shortOfBeat)
	}
	return 0
}

// whole is a measure of the step rather than of one of its notes.
func whole(m Reading) []Reading {
	m.Note = WholeStep
	return []Reading{m}
}

const shortOfBeat music.Beats = 0.4 // a burst need not fill its beat
