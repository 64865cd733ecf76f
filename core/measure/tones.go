package measure

import (
	"math"

	"earlychorus/core/scores"
)

// each takes a measure of every played note of the phases.
func each(c Case, of func(playedNote) Reading, phases ...scores.Phase) (out []Reading) {
	for _, p := range c.played(phases...) {
		m := of(p)
		m.Note = p.n
		out = append(out, m)
	}
	return out
}

func tones(c Case, of func(playedNote) Reading) []Reading {
	return each(c, of, scores.Play, scores.Buzz)
}

// landed measures the notes that another one leads to.
func landed(c Case, of func(playedNote) Reading) (out []Reading) {
	targets := c.Score.Targets()
	for _, m := range tones(c, of) {
		if scores.Follows(targets, m.Note) {
			out = append(out, m)
		}
	}
	return out
}

// easier is the limit a hard note is judged by: that of one stage before.
func easier(c Case, p playedNote, limit float64, of func(scores.Limits) float64) float64 {
	if !p.target.Hard {
		return limit
	}
	return math.Max(limit, of(c.Score.HardLimits))
}

func sign(x float64) int {
	switch {
	case x < 0:
		return -1
	case x > 0:
		return 1
	}
	return 0
}
