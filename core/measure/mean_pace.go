package measure

import (
	"math"
)

// Pace is how far the mean tempo lies from the tempo in force.
var Pace = Measure{
	Key:     "pace",
	Unit:    "per cent",
	Meaning: "the tempo lies within this of the one in force",
	Take:    meanPace,
	Fault:   &wrongPace,
}

// CausePace names a tempo that is kept, and is another.
const CausePace Cause = "pace"

// wrongPace is another tempo than asked, and what helps.
var wrongPace = Fault{
	Cause: CausePace,
	Rank:  whenItComes + 1,
	Tips: []Advice{
		{
			Key:  "too-fast",
			When: When{Direction: High},
			Text: "Play it with the click, and keep it slow on purpose.",
		},
		{Key: "too-slow", When: When{Direction: Low}, Text: "Play it with the click, and think one note ahead."},
		{Key: "pace", Text: "Tap the beat first, then play it with the click."},
	},
}

// meanPace compares the lengths of notes that follow one another with what is
// asked. Where the pace changes by more, that is told instead.
func meanPace(c Case, limit float64) []Reading {
	percent, ok := meanChange(c)
	if drift, _ := paceChanges(c); !ok || c.asks("tempo-drift") && math.Abs(drift) > math.Abs(percent) {
		return nil
	}
	return whole(Reading{
		Value:  percent,
		Limit:  limit,
		Excess: max(perfect, math.Abs(percent)/limit),
		Way:    sign(percent),
	})
}
