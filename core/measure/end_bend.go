package measure

import (
	"math"
)

// EndBend is how far the pitch falls at the end.
var EndBend = Measure{
	Key:     "end-bend",
	Unit:    "cents",
	Meaning: "the last 150 ms fall at most this far",
	Take:    endBend,
	Fault:   &badEnding,
}

func endBend(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		falls := math.Max(0, -float64(p.note.EndBend))
		return Reading{
			Value:  falls,
			Limit:  limit,
			Excess: max(perfect, falls/limit),
			Trust:  p.note.Distrust.Pitch,
			Way:    1,
		}
	})
}
