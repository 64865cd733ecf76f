package progress

import (
	"slices"

	"earlychorus/core/ear"
	"earlychorus/core/music"
)

// Times of an excerpt.
const (
	before    music.Seconds = 1   // of music ahead of what matters
	after     music.Seconds = 1.5 // behind it
	longest   music.Seconds = 10
	shortest  music.Seconds = 3
	deciding  music.Seconds = 4 // what a director needs to decide and press a key
	praiseFor music.Seconds = 6 // of a good take
)

// Cut is the piece of a recording that somebody should hear.
type Cut struct {
	From music.Seconds `json:"from_s" doc:"in the recording"`
	To   music.Seconds `json:"to_s"`
	At   string        `json:"at" doc:"what the excerpt is about"`
}

// beginning is the cut of a take of which nothing more is known.
var beginning = Cut{0, longest, "the beginning"}

// CutOf cuts out what matters in a take: the event in the note that decided, that
// note's start, or the beginning of the first note. decided is the index of that
// note; measure.WholeStep where the whole step did.
func CutOf(a ear.Analysis, decided int) Cut {
	c := beginning
	if n := slices.IndexFunc(a.Notes, func(n ear.Note) bool { return n.Played }); n >= 0 {
		c.From, c.To = a.Notes[n].Onset-before, a.Notes[n].Onset+praiseFor
	}
	if decided >= 0 && decided < len(a.Notes) && a.Notes[decided].Played {
		n := a.Notes[decided]
		c = Cut{n.Onset - before, min(n.Release, n.Onset+longest-before-after) + after, "the note that decided"}
		for _, e := range a.Events {
			if e.Note == decided && telling(e.Kind) {
				c = Cut{e.At - before - 0.5, e.At + e.Duration + after, "where it happened"}
				break
			}
		}
	}
	c.From = max(0, c.From)
	c.To = min(max(c.To, c.From+shortest), c.From+longest, max(a.Seconds, c.From+shortest))
	return c
}

func telling(k ear.EventKind) bool {
	switch k {
	case ear.Gap, ear.Break, ear.Undertone, ear.WrongNote, ear.Chirp, ear.Scoop, ear.Sag:
		return true
	}
	return false
}
