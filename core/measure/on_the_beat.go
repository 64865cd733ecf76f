package measure

import "earlychorus/core/music"

func beatsOf(c Case, limit float64, label string, walk func(Case, func(playedNote) Reading) []Reading) []Reading {
	return walk(c, func(p playedNote) Reading {
		return Reading{
			Label:     label,
			Value:     float64(p.note.Response),
			Limit:     limit,
			Text:      lateOrEarly(p.note.Response),
			Wanted:    "within " + milliseconds(music.Seconds(limit)),
			Trust:     p.note.Distrust.Time,
			Direction: sign(float64(p.note.Response)),
		}
	})
}
