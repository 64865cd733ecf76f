package measure

// Scoop is where the first moment of a note lies beside the rest of it.
var Scoop = Measure{
	Key:     "scoop",
	Unit:    "cents",
	Meaning: "the first 60 ms lie this near to the note's own centre",
	Take:    scoop,
	Fault:   &scoops,
}

// CauseScoop names a start beside the pitch.
const CauseScoop Cause = "scoop"

// scoops is a start beside the pitch, and what helps.
var scoops = Fault{
	Cause: CauseScoop,
	Rank:  howItHolds + 3,
	Tips: []Advice{
		{
			Key:  "scoop-up",
			When: When{Direction: Low},
			Text: "The start slides up. Set the mouth for the note before the air goes, and hear it first.",
		},
		{
			Key:  "scoop-down",
			When: When{Direction: High},
			Text: "The start is pinched. Let the air begin the note and the tongue only touch lightly.",
		},
		{Key: "scoop", Text: "Begin on the pitch: mouth ready, note in your ear, then air."},
	},
}

func scoop(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		return Reading{
			Value: float64(p.note.Scoop),
			Limit: limit,
			Trust: p.note.Distrust.Pitch,
			Way:   sign(float64(p.note.Scoop)),
		}
	})
}
