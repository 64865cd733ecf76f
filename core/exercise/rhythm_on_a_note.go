package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Rhythm on a note: one whole, two halves, four quarters, by the tongue.
var rhythmOnANote = Kind{
	Key:   "rhythm-on-a-note",
	Name:  "Rhythm on a note",
	Group: scores.Patterns,
	Why:   "The tongue divides the air; the air does not stop.",
	Parts: []Param{notes("Concert notes", 2, 0), fingersFirst(), tempo(80)},
	Says: func(v Values) string {
		return fmt.Sprintf("concert %s: a whole, two halves, four quarters", concertNames(v.notes()))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM, w.pattern = v.tempo(), v.notes()
		w.countIn(readyText)
		w.breathe()
		for n, d := range v.notes() {
			for k, count := range []int{1, 2, 4} {
				if n > 0 || k > 0 {
					w.rest(4, "Rest.")
				}
				for range count {
					w.tone(d, 4/beatsOf(count))
				}
			}
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.Timing, onTheBeat)
		w.judge(measure.Pace, mostPace)
		w.judge(measure.TempoDrift, mostTempo)
	},
}
