package measure

import (
	"math"
)

// Evenness is how much the lengths of the notes differ.
var Evenness = Measure{
	Key:     "evenness",
	Unit:    "share",
	Meaning: "the notes' lengths spread by at most this",
	Take:    evenness,
	Fault:   &unevenLengths,
}

// CauseEvenness names lengths that differ.
const CauseEvenness Cause = "evenness"

// unevenLengths is lengths that differ, and what helps.
var unevenLengths = Fault{
	Cause: CauseEvenness,
	Rank:  whenItComes + 5,
	Tips: []Advice{
		{
			Key: "evenness",
			Text: "Some notes are shorter. Make the short ones long and the long ones short for one turn, then play " +
				"it even.",
		},
		{
			Key:  "evenness-slow",
			Text: "Take the tempo down until every note has the same room, then come up two clicks at a time.",
		},
	},
}

// evenness is the spread of the notes' lengths.
func evenness(c Case, limit float64) []Reading {
	_, ratio := pace(c)
	if len(ratio) < fewestForPace {
		return nil
	}
	var mean, squares float64
	for _, x := range ratio {
		mean += x / float64(len(ratio))
	}
	for _, x := range ratio {
		squares += (x - mean) * (x - mean) / float64(len(ratio))
	}
	spread := math.Sqrt(squares) / mean
	return whole(Reading{
		Value:  spread,
		Limit:  limit,
		Excess: max(perfect, spread/limit),
		Way:    1,
	})
}
