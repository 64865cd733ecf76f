package measure

import (
	"earlychorus/core/music"
)

// HighAbove is how far the high sound lies above the low one.
var HighAbove = Measure{
	Key:     "high-above",
	Unit:    "cents",
	Meaning: "the high sound lies at least this far above the low one",
	Take:    highAbove,
	Fault:   &tooNear,
}

// CauseApart names a high and a low sound too much alike.
const CauseApart Cause = "apart"

// tooNear is a high and a low sound too much alike, and what helps.
var tooNear = Fault{
	Cause: CauseApart,
	Rank:  whetherItSounds + 6,
	Tips: []Advice{
		{
			Key:  "apart",
			Text: "Put the two further apart: firm corners and {faster} for high, loose lips and {slower} for low.",
		},
	},
}

// highAbove is how far the high sound lies above the low one.
func highAbove(c Case, limit float64) []Reading {
	targets := c.Score.Targets()
	low, high := 0, 0
	for n := range targets {
		if !c.Analysis.Notes[n].Played {
			return nil // told by the note that did not speak
		}
		if targets[n].Target < targets[low].Target {
			low = n
		}
		if targets[n].Target > targets[high].Target {
			high = n
		}
	}
	cents := float64(music.Between(c.Analysis.Notes[low].F0, c.Analysis.Notes[high].F0))
	m := Reading{
		Value:  cents,
		Limit:  limit,
		Excess: atLeast(cents, limit),
		Way:    -1,
	}
	return whole(m)
}
