package measure

import (
	"math"

	"earlychorus/core/ear"
	"earlychorus/core/music"
)

// How near a metronome's click lies to what it disturbs, and how many on the same part of the
// beat say that one is due where none was heard: a note hides it.
const (
	aroundClick  = music.Seconds(0.1)
	clickIsDue   = music.Seconds(0.06)
	fewestForDue = 4
)

// clicksAt reports whether a click sounds about a moment.
func (c Case) clicksAt(at music.Seconds) bool {
	for _, s := range c.Analysis.Sounds {
		if s.Kind == ear.Click && max(s.At-at, at-s.At) < aroundClick {
			return true
		}
	}
	return false
}

// clickDueAt reports whether a metronome that runs in the room clicks about a moment.
func (c Case) clickDueAt(at music.Seconds) bool {
	beat, alike := c.Score.TempoBPM.Seconds(1), 0
	for _, s := range c.Analysis.Sounds {
		off := at - s.At
		off -= beat * music.Seconds(math.Round(float64(off/beat)))
		if s.Kind == ear.Click && max(off, -off) < clickIsDue {
			alike++
		}
	}
	return alike >= fewestForDue
}
