package measure

// Level is how much the loudness of a note varies. It informs only: no step is
// judged by it yet.
var Level = Measure{
	Key:     "level",
	Unit:    "dB",
	Meaning: "the loudness varies by at most this (standard deviation)",
	Take:    level,
	Informs: true,
}

func level(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		return Reading{
			Value: p.note.LevelSD,
			Limit: limit,
		}
	})
}
