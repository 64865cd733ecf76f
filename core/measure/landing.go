package measure

import (
	"earlychorus/core/instrument"
)

// Landing is where a note lies that another leads to.
var Landing = Measure{
	Key:     "landing",
	Unit:    "cents",
	Meaning: "a note that another leads to lies this near",
	Take:    landing,
	Fault:   &landsBeside,
}

// CauseLanding names a note that is not reached.
const CauseLanding Cause = "landing"

// landsBeside is a note that is not reached, and what helps.
var landsBeside = Fault{
	Cause: CauseLanding,
	Rank:  wherePitchLies + 0,
	Tips: []Advice{
		{
			Key:  "brass-landing-high",
			When: When{Family: instrument.Brass, Direction: High},
			Text: "You land above the note. Hear it first and go there with {slower}.",
		},
		{
			Key:  "brass-landing-low",
			When: When{Family: instrument.Brass, Direction: Low},
			Text: "You land below the note. Hear it first, set the corners a moment before, and use {faster}.",
		},
		{
			Key:  "landing",
			Text: "Hear the far note before you leave the first one. Move the fingers fast and keep the air the same.",
		},
	},
}

func landing(c Case, limit float64) []Reading {
	return landed(c, func(p playedNote) Reading {
		return Reading{
			Value: float64(p.note.Centre),
			Limit: limit,
			Trust: p.note.Distrust.Pitch,
			Way:   sign(float64(p.note.Centre)),
		}
	})
}
