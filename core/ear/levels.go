package ear

import (
	"earlychorus/core/contour"
	"earlychorus/core/music"
)

// way is how loudness is listened for: fully, or brightly, the upper harmonics alone.
type way int

const (
	fully way = iota
	brightly
)

// levelsAsked is which levels of a take were asked for.
type levelsAsked struct {
	way          way
	from, window music.Seconds
	steps        int
}

// levelsOf reads a plateau's loudness, tongueStep by tongueStep; not to be changed.
func (l *listening) levelsOf(how way, p plateau) []music.Decibels {
	e := l.fine
	if how == brightly {
		e = l.bright
	}
	asked := levelsAsked{how, p.Onset, window(p.pitch), int(p.length() / tongueStep)}
	return l.take.levels.Of(asked, e.Reaches(p.Release, asked.window), func() []music.Decibels {
		return asked.of(e)
	})
}

func (a levelsAsked) of(e contour.Envelope) []music.Decibels {
	out := make([]music.Decibels, a.steps)
	for n := range out {
		out[n] = e.Level(a.from+music.Seconds(n)*tongueStep, a.window)
	}
	return out
}
