package measure

import "fmt"

// HoldTime is how long a note sounds, in seconds.
var HoldTime = Measure{
	Key:     "hold",
	Unit:    "s",
	Meaning: "the note sounds at least this long",
	Take:    holdTime,
	Fault:   &tooShort,
}

func holdTime(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		held := float64(p.note.Sounding)
		return Reading{
			Label:     "Held",
			Value:     held,
			Limit:     limit,
			Text:      fmt.Sprintf("held %.1f s", held),
			Wanted:    fmt.Sprintf("at least %.1f s", limit),
			Excess:    atLeast(held, limit),
			Direction: -1,
		}
	})
}
