package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/scores"
)

// Long tone, counted: each note held for a number of beats, a rest between.
var longToneCounted = Kind{
	Key:   KindLongToneCounted,
	Name:  "Long tone, counted",
	Group: scores.LongTones,
	Why:   "Long tones teach your air and your ear to hold a note still.",
	Parts: []Param{notes("Concert notes, in order", 6, 0, 7), writtenNotes(6), beats(8), restBeats(8), tempo(60)},
	Says: func(v Values) string {
		s := fmt.Sprintf("%s, %s each at %.0f", saysNotes(v), sayBeats(v.beats("beats")), v.tempo())
		if max(len(v.notes()), len(v.written())) > 1 {
			s += fmt.Sprintf(", %.0f beats rest between", v.beats("rest_beats"))
		}
		return s
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn(readyText)
		for n, m := range w.apart(v) {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(v.beats("rest_beats"), "Rest. Lips loose.")
			}
			w.at(m, v.beats("beats"))
		}
		w.end()
		w.judgeTone()
	},
}
