package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// NoGap is the longest silence inside a note.
var NoGap = Measure{
	Key:     "gap",
	Unit:    "s",
	Meaning: "no silence inside a note this long",
	Take:    noGap,
	Fault:   &stops,
}

// CauseGap names a sound that stops.
const CauseGap Cause = "gap"

// stops is a sound that stops, and what helps.
var stops = Fault{
	Cause: CauseGap,
	Rank:  whetherItSounds + 3,
	Tips: []Advice{
		{
			Key:  "buzz-gap",
			When: When{Chapter: scores.Buzzing},
			Text: "The buzz stopped. Blow air through the lips first, then bring them together without stopping the " +
				"air.",
		},
		{
			Key:  "brass-gap",
			When: When{Family: instrument.Brass},
			Text: "The buzz stopped. Keep the lips together and blow right through the note.",
		},
		{Key: "gap", Text: "The air stopped. Take a low, full breath and spread it over all the beats."},
	},
}

func noGap(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		r := longest(c, p, limit, ear.Gap)
		if pulse := p.note.Pulse; pulse != nil && c.Analysis.Recording.Ring > hidesTongue &&
			r.Value*pulse.Asked < troughShare {
			return Reading{Limit: limit, Excess: touched(0, limit)}
		}
		return r
	})
}

// troughShare is how much of a push of the air may be lost between two in a room that rings:
// its echoes cancel what is soft there.
const troughShare = 0.6
