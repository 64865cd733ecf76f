package measure

import "earlychorus/core/scores"

// Timing is how near to its beat every note begins.
var Timing = Measure{
	Key:     "timing",
	Unit:    "s",
	Meaning: "every note begins within this of its beat",
	Take:    timing,
	Fault:   &offBeat,
}

// CauseTiming names notes beside the beat.
const CauseTiming Cause = "timing"

// offBeat is notes beside the beat, and what helps.
var offBeat = Fault{
	Cause: CauseTiming,
	Rank:  whenItComes + 4,
	Tips: []Advice{
		{
			Key:  "timing-early",
			When: When{Direction: Low},
			Text: "You come before the beat. Tap your foot and say the rhythm aloud first.",
		},
		{
			Key:  "timing-late",
			When: When{Direction: High},
			Text: "You come after the beat. Tongue on the click, with the air already there.",
		},
		{Key: "timing", Text: "Clap the rhythm with the click, then play it on one note."},
	},
}

func timing(c Case, limit float64) []Reading {
	return beatsOf(c, limit,
		func(c Case, of func(playedNote) Reading) []Reading { return each(c, of, scores.Play) },
	)
}
