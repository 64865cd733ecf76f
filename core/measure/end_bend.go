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
	Aside:   true,
}

func endBend(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		doubt := c.doubtOfEnd(p)
		if p.note.Distrust.Pitch != "" {
			doubt = p.note.Distrust.Pitch
		}
		falls := math.Max(0, -float64(p.note.EndBend))
		return Reading{
			Value:  falls,
			Limit:  limit,
			Excess: max(perfect, falls/limit),
			Trust:  doubt,
			Way:    1,
		}
	})
}
