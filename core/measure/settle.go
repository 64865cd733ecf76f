package measure

// Settle is how long such a note needs to come to rest.
var Settle = Measure{
	Key:     "settle",
	Unit:    "s",
	Meaning: "and stays within 20 cents of itself after this",
	Take:    settle,
	Fault:   &landsBeside,
}

func settle(c Case, limit float64) []Reading {
	return landed(c, func(p playedNote) Reading {
		return Reading{
			Value:  float64(p.note.Settle),
			Limit:  limit,
			Excess: max(perfect, float64(p.note.Settle)/limit),
			Trust:  p.note.Distrust.Pitch,
			Way:    1,
		}
	})
}
