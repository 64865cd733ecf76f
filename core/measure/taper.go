package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/scores"
)

// Taper is how long the end of a note fades.
var Taper = Measure{
	Key:     scores.TaperKey,
	Unit:    "s",
	Meaning: "the end fades for at least this long",
	Take:    taper,
	Fault:   &badEnding,
	Aside:   true,
}

// CauseEnding names an end that is cut or falls.
const CauseEnding Cause = "ending"

// badEnding is an end that is cut or falls, and what helps.
var badEnding = Fault{
	Cause: CauseEnding,
	Rank:  howItHolds + 4,
	Tips: []Advice{
		{
			Key:  "ending-sinks",
			When: When{Direction: High},
			Text: "The end falls. Keep blowing while it fades; the mouth does not open.",
		},
		{
			Key:  "ending-cut",
			When: When{Direction: Low},
			Text: "It stops short. Let the air get smaller and smaller; the tongue stays out of it.",
		},
		{Key: "ending", Text: "Let the air taper away, like a line that thins to nothing."},
	},
}

// heardTo is how exactly, in seconds, the length of a fade is heard: the room's ring beats
// with it, a click sounds over it.
const heardTo = 0.04

func taper(c Case, limit float64) []Reading {
	limit = max(limit/2, limit-heardTo)
	return tones(c, func(p playedNote) Reading {
		return Reading{
			Value:  float64(p.note.Decay),
			Limit:  limit,
			Excess: atLeast(float64(p.note.Decay), limit),
			Trust:  c.doubtOfEnd(p),
			Way:    -1,
		}
	})
}

// aroundEnd is how long before and after a note's end, in seconds, something else makes
// it another end.
const aroundEnd = 0.4

// doubtOfEnd is why the end of a note cannot be relied on: somebody talks or plays into it, or
// a metronome clicks.
func (c Case) doubtOfEnd(p playedNote) ear.Doubt {
	if c.clickDueAt(p.note.Release) {
		return ear.WithAnother
	}
	for _, s := range c.Analysis.Sounds {
		if s.Kind != ear.Click && s.At < p.note.Release+aroundEnd && s.At+s.Duration > p.note.Release-aroundEnd {
			return ear.WithAnother
		}
	}
	return p.note.Distrust.Level
}
