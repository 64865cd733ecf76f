package measure

import (
	"math"

	"earlychorus/core/scores"
)

// OwnCentre is how far a buzz strays from itself.
var OwnCentre = Measure{
	Key:     "own-centre",
	Unit:    "cents",
	Meaning: "a buzz strays at most this far from itself",
	Take:    ownCentre,
	Fault:   &wavers,
}

// ownCentre is how far a buzz strays from itself.
func ownCentre(c Case, limit float64) (out []Reading) {
	for n, t := range c.Score.Targets() {
		note := c.Analysis.Notes[n]
		if !note.Played || t.Phase == scores.Sing {
			continue
		}
		strays := math.Max(float64(note.Steadiness), math.Abs(note.Drift)*float64(note.Sounding)/2)
		out = append(out, Reading{
			Note:  n,
			Value: strays,
			Limit: limit,
			Trust: note.Distrust.Pitch,
			Way:   1,
		})
	}
	return out
}
