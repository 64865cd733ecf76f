package measure

import (
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Change is how long it takes from one note to the next.
var Change = Measure{
	Key:     "change",
	Unit:    "s",
	Meaning: "from one note to the next takes at most this",
	Take:    change,
	Fault:   &slowChange,
}

// CauseChange names a change that takes too long.
const CauseChange Cause = "change"

// slowChange is a change that takes too long, and what helps.
var slowChange = Fault{
	Cause: CauseChange,
	Rank:  whenItComes + 3,
	Tips: []Advice{
		{
			Key:  "brass-change",
			When: When{Family: instrument.Brass},
			Text: "The change takes too long. Keep the air going. Move late, but fast.",
		},
		{
			Key:  "change",
			Text: "The change takes too long. Finger it silently ten times, all fingers at once, then play it.",
		},
		{Key: "change-air", Text: "Keep blowing through the change, as if it were one long note."},
	},
}

// change is how long it took to come from the note before, where nothing lies
// between.
func change(c Case, limit float64) []Reading {
	targets := c.Score.Targets()
	var out []Reading
	for _, m := range tones(c, func(p playedNote) Reading {
		limit := easier(c, p, limit, func(l scores.Limits) float64 { return float64(l.ChangeTime) })
		return Reading{
			Value:  float64(p.note.Change),
			Limit:  limit,
			Excess: max(perfect, float64(p.note.Change)/limit),
			Way:    1,
		}
	}) {
		if scores.Follows(targets, m.Note) {
			out = append(out, m)
		}
	}
	return out
}
