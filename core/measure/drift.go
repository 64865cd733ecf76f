package measure

// Drift is how fast a note climbs or sinks.
var Drift = Measure{
	Key:     "drift",
	Unit:    "cents/s",
	Meaning: "the pitch climbs or sinks at most this fast",
	Take:    drift,
	Fault:   &climbsOrSinks,
	Informs: true,
}

// CauseDrift names a note that climbs or sinks.
const CauseDrift Cause = "drift"

// climbsOrSinks is a note that climbs or sinks, and what helps.
var climbsOrSinks = Fault{
	Cause: CauseDrift,
	Rank:  howItHolds + 1,
	Tips: []Advice{
		{
			Key:  "sinks",
			When: When{Direction: Low},
			Text: "It sinks as the air runs out. Use a bigger breath and keep blowing to the very end.",
		},
		{
			Key:  "rises",
			When: When{Direction: High},
			Text: "It climbs. Keep the lips from tightening: let the air do the work.",
		},
		{Key: "drift", Text: "Keep the ribbon level: {even}, and the mouth quite still."},
	},
}

func drift(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		return Reading{
			Value: p.note.Drift,
			Limit: limit,
			Trust: p.note.Distrust.Pitch,
			Way:   sign(p.note.Drift),
		}
	})
}
