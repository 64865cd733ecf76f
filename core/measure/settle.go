package measure

import "earlychorus/core/music"

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
			Label:     "Settles",
			Value:     float64(p.note.Settle),
			Limit:     limit,
			Text:      "in " + milliseconds(p.note.Settle),
			Wanted:    "within " + milliseconds(music.Seconds(limit)),
			Excess:    max(perfect, float64(p.note.Settle)/limit),
			Trust:     p.note.Distrust.Pitch,
			Direction: 1,
		}
	})
}
