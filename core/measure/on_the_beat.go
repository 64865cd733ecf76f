package measure

func beatsOf(c Case, limit float64, label string, walk func(Case, func(playedNote) Reading) []Reading) []Reading {
	return walk(c, func(p playedNote) Reading {
		return Reading{
			Value: float64(p.note.Response),
			Limit: limit,
			Trust: p.note.Distrust.Time,
			Way:   sign(float64(p.note.Response)),
		}
	})
}
