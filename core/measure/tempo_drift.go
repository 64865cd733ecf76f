package measure

import (
	"math"
)

// TempoDrift is whether the notes grow shorter or longer over the step.
var TempoDrift = Measure{
	Key:     "tempo-drift",
	Unit:    "per cent",
	Meaning: "the notes grow longer or shorter by at most this over the step",
	Take:    tempoDrift,
	Fault:   &tempoChanges,
}

// CauseTempo names a tempo that does not keep.
const CauseTempo Cause = "tempo"

// tempoChanges is a tempo that does not keep, and what helps.
var tempoChanges = Fault{
	Cause: CauseTempo,
	Rank:  whenItComes + 0,
	Tips: []Advice{
		{
			Key:  "rushing",
			When: When{Direction: High},
			Text: "You speed up. Play the last note of each beat late. Listen to the click.",
		},
		{
			Key:  "dragging",
			When: When{Direction: Low},
			Text: "You slow down. Breathe less often, and think ahead one note.",
		},
		{Key: "tempo", Text: "Play it once with the click, once without, and compare."},
	},
}

// tempoDrift is the slope of the notes' lengths over a phrase, per cent.
func tempoDrift(c Case, limit float64) []Reading {
	percent, ok := paceChanges(c)
	if mean, _ := meanChange(c); !ok || c.asks("pace") && math.Abs(mean) >= math.Abs(percent) {
		return nil
	}
	return whole(Reading{
		Value: percent,
		Limit: limit,
		Way:   sign(percent),
	})
}
