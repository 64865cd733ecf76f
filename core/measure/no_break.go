package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
)

// NoBreak is the longest jump away from a note.
var NoBreak = Measure{
	Key:     "break",
	Unit:    "s",
	Meaning: "no jump away from the note this long",
	Take:    noBreak,
	Fault:   &jumpsAway,
}

// CauseBreak names a note that jumps away.
const CauseBreak Cause = "break"

// jumpsAway is a note that jumps away, and what helps.
var jumpsAway = Fault{
	Cause: CauseBreak,
	Rank:  whichNote + 7,
	Tips: []Advice{
		{
			Key:  "brass-break",
			When: When{Family: instrument.Brass},
			Text: "Use {even} and keep the corners still: the note jumps when the air does.",
		},
		{
			Key:  "sax-jump-up",
			When: When{Family: instrument.Saxophones, Register: LowRegister, Direction: High},
			Text: "The low note jumped up. Open the throat, think \"oh\", and check that every hole is covered.",
		},
		{
			Key:  "sax-growl",
			When: When{Family: instrument.Saxophones, Register: HighRegister},
			Text: "The high note growls. Take a little less mouthpiece and keep the chin easy.",
		},
		{
			Key:  "clarinet-break",
			When: When{Family: instrument.Clarinets, Direction: High},
			Text: "Check that every finger seals its hole: a small leak sends the note up a twelfth.",
		},
		{
			Key:  "bassoon-jump",
			When: When{Only: []string{"bassoon"}, Register: LowRegister, Direction: High},
			Text: "The low note flew up. Too much air: drop the jaw, relax and use {slower}.",
		},
		{
			Key:  "flute-break",
			When: When{Family: instrument.Flutes, Direction: High},
			Text: "It jumped up. Keep the lips still and aim the air a little lower.",
		},
		{
			Key:  "recorder-break",
			When: When{Family: instrument.Recorders, Direction: High},
			Text: "It jumped up: blow more gently, and press the pads of the fingers flat over the holes.",
		},
		{Key: "break", Text: "Cover the holes fully and use {even}; start softly and let the note settle."},
	},
}

func noBreak(c Case, limit float64) []Reading {
	kinds := []ear.EventKind{ear.Break}
	if !c.asks(Undertone.Key) {
		kinds = append(kinds, ear.Undertone)
	}
	return tones(c, func(p playedNote) Reading {
		return longest(c, p, limit, kinds...)
	})
}
