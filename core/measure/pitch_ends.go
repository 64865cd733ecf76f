package measure

import (
	"math"

	"earlychorus/core/ear"
	"earlychorus/core/scores"
)

// PitchEnds is how far a long note climbs or sinks from its start to its end.
var PitchEnds = Measure{
	Key:     "pitch-ends",
	Unit:    "cents",
	Meaning: "the pitch at the end lies within this of the pitch at the start",
	Take:    pitchEnds,
	Fault:   &climbsOrSinks,
}

func pitchEnds(c Case, limit float64) []Reading {
	return endToEnd(c, limit, func(l scores.Limits) float64 { return float64(l.Drift) },
		func(p playedNote) (float64, ear.Doubt) {
			return float64(p.note.CentsTo - p.note.CentsFrom), p.note.Distrust.Pitch
		})
}

// endToEnd compares the end of every note that is long enough with its start.
func endToEnd(
	c Case,
	limit float64,
	own func(scores.Limits) float64,
	of func(playedNote) (by float64, trust ear.Doubt),
) (out []Reading) {
	for _, p := range c.played(scores.Play, scores.Buzz) {
		if p.note.Release-p.note.Onset < longEnough {
			continue
		}
		limit := easier(c, p, limit, own)
		by, trust := of(p)
		out = append(out, Reading{
			Note:   p.n,
			Value:  by,
			Limit:  limit,
			Excess: max(perfect, math.Abs(by)/limit),
			Trust:  trust,
			Way:    sign(by),
		})
	}
	return out
}

// longEnough is the least length, in seconds, over which a note has a start and an
// end to compare.
const longEnough = 1.2
