package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Sing first: the notes sung while fingering silently, then played.
var singFirst = Kind{
	Key:   "sing-first",
	Name:  "Sing first",
	Group: scores.Ear,
	Why:   "What you can sing, you can play in tune.",
	Parts: []Param{
		notes("Concert notes, in order", 5, 0, 2, 4),
		writtenNotes(5),
		number("beats", "Beats each", "beats", 1, 8, 1, 2, "give each note 1 to 8 beats"),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("%s, sung while fingering, then played", saysNotes(v))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		line := w.inARow(v)
		w.countIn("Hear the first note.")
		w.at(line[0], 2, as(scores.Listen), saying("Listen"))
		w.breathe()
		if w.c.SingFirst == PlayAtOnce {
			w.notice("This class plays at once, without singing.")
		} else {
			for _, m := range line {
				w.at(m, v.beats("beats"), as(scores.Sing))
			}
			w.rest(4, "Now with the instrument.")
			w.judge(measure.Sung, sungWithin)
		}
		for _, m := range line {
			w.at(m, v.beats("beats"))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.Centre, max(patternCentre, float64(w.s.Limits.Centre)))
	},
}

const sungWithin = 50. // cents, in any octave
