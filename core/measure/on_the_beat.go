package measure

import (
	"slices"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// breathLag is how much later a note is heard, in seconds, that the breath alone begins:
// it grows instead of starting (common practice, no published source).
const breathLag = 0.1

// speaksAfter is how many periods a note takes to speak: of a low one they are long
// (common practice, no published source).
const speaksAfter = 2

// beatsOf measures the notes that start: one held on from the same note does not.
func beatsOf(c Case, limit float64, walk func(Case, func(playedNote) Reading) []Reading) []Reading {
	targets := c.Score.Targets()
	out := walk(c, func(p playedNote) Reading {
		within := limit
		if p.target.Articulation == scores.BreathStart {
			within += breathLag
		}
		if p.note.Response > 0 {
			within += speaksAfter / float64(p.target.Target.Frequency(music.StandardA4))
		}
		return Reading{
			Value: float64(p.note.Response),
			Limit: within,
			Trust: p.note.Distrust.Time,
			Way:   sign(float64(p.note.Response)),
		}
	})
	return slices.DeleteFunc(out, func(r Reading) bool { return scores.GoesOn(targets, r.Note) })
}
