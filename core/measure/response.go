package measure

import "earlychorus/core/scores"

// Response is how long after its beat a note speaks.
var Response = Measure{
	Key:     "response",
	Unit:    "s",
	Meaning: "the note speaks within this of its beat",
	Take:    response,
	Fault:   &late,
	Informs: true,
}

// CauseLate names a note that speaks early or late.
const CauseLate Cause = "late"

// late is a note that speaks early or late, and what helps.
var late = Fault{
	Cause: CauseLate,
	Rank:  whenItComes + 2,
	Tips: []Advice{
		{
			Key:  "early",
			When: When{Direction: Low},
			Text: "You start before the beat. Breathe in one beat before. Blow on the click.",
		},
		{
			Key:  "late-buzz",
			When: When{Chapter: scores.Buzzing, Direction: High},
			Text: "The buzz comes late. Lips nearly touching, corners firm, and the air all at once.",
		},
		{
			Key:  "late",
			When: When{Direction: High},
			Text: "It speaks late. Have your breath ready. Let the air go on the click.",
		},
		{Key: "start", Text: "Breathe in time: in on the beat before, out on the click."},
	},
}

// response is not measured in a recording made without our click.
func response(c Case, limit float64) []Reading {
	if c.FreeStart {
		return nil
	}
	return beatsOf(c, limit, "Start", tones)
}
