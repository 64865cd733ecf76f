package measure

import (
	"fmt"
	"math"

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

func pitchEnds(c Case, limit float64) (out []Reading) {
	for _, p := range c.played(scores.Play, scores.Buzz) {
		if p.note.Release-p.note.Onset < longEnough {
			continue
		}
		limit := easier(c, p, limit, func(l scores.Limits) float64 { return float64(l.Drift) })
		by := float64(p.note.CentsTo - p.note.CentsFrom)
		out = append(out, Reading{
			Note:   p.n,
			Value:  by,
			Limit:  limit,
			Excess: max(perfect, math.Abs(by)/limit),
			Trust:  p.note.Distrust.Pitch,
			Way:    sign(by),
		})
	}
	return out
}

// longEnough is the least length, in seconds, over which a note has a start and an
// end to compare.
const longEnough = 1.2

func sinksOrClimbs(cents float64) string {
	switch {
	case cents <= -1:
		return fmt.Sprintf("sank %.0f cents", -cents)
	case cents >= 1:
		return fmt.Sprintf("climbed %.0f cents", cents)
	}
	return "stays level"
}
