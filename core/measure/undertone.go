package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
)

// Undertone is how long a lower note sounds under the start of an upper one.
var Undertone = Measure{
	Key:     "undertone",
	Unit:    "s",
	Meaning: "no lower note sounds under the start this long",
	Take:    undertone,
	Fault:   &lowerNoteUnder,
}

// CauseUndertone names a lower note that sounds first.
const CauseUndertone Cause = "undertone"

// lowerNoteUnder is a lower note that sounds first, and what helps.
var lowerNoteUnder = Fault{
	Cause: CauseUndertone,
	Rank:  whichNote + 8,
	Tips: []Advice{
		{
			Key:  "clarinet-undertone",
			When: When{Family: instrument.Clarinets},
			Text: "A lower note sounds under the start. Keep air and mouth as they are. " +
				"Press the register key all the way.",
		},
		{
			Key:  "brass-undertone",
			When: When{Family: instrument.Brass},
			Text: "A lower partial sounds first. Hear the note before you start, and set the corners for it.",
		},
		{
			Key:  "undertone",
			Text: "A lower note sounds with it. Use {faster} from the very start and keep the mouth as it is.",
		},
	},
}

func undertone(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		return longest(c, p, limit, ear.Undertone)
	})
}
