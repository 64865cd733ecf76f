package measure

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
			Value:  held,
			Limit:  limit,
			Excess: atLeast(held, limit),
			Way:    -1,
		}
	})
}
