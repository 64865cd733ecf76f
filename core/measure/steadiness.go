package measure

import (
	"earlychorus/core/scores"
)

// Steadiness is how far a note moves to and fro.
var Steadiness = Measure{
	Key:     "steadiness",
	Unit:    "cents",
	Meaning: "half the 5–95 % range of the pitch, its drift taken off, is at most this",
	Take:    steadiness,
	Fault:   &wavers,
}

// CauseSteadiness names a note that moves to and fro.
const CauseSteadiness Cause = "steadiness"

// wavers is a note that moves to and fro, and what helps.
var wavers = Fault{
	Cause: CauseSteadiness,
	Rank:  howItHolds + 0,
	Tips: []Advice{
		{
			Key:  "buzz-strays",
			When: When{Chapter: scores.Buzzing},
			Text: "Pick one pitch and stay on it: think of one line drawn by the lips.",
		},
		{
			Key:  "waver",
			Text: "Blow a long straight line: {even} from the first beat to the last. Watch the ribbon lie flat.",
		},
		{Key: "waver-soft", Text: "Play it a little louder and shorter, quite still; then stretch it beat by beat."},
	},
}

func steadiness(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		limit := easier(c, p, limit, func(l scores.Limits) float64 { return float64(l.Waver) })
		return Reading{
			Value: float64(p.note.Steadiness),
			Limit: limit,
			Trust: p.note.Distrust.Pitch,
			Way:   1,
		}
	})
}
