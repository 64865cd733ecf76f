package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Make a tune: of the notes that are known; never graded.
var makeATune = Kind{
	Key:   KindMakeATune,
	Name:  "Make a tune",
	Group: scores.Ear,
	Why:   "It is yours. Nobody marks it.",
	Parts: []Param{
		notes("Notes to use", 5, FirstFive...),
		number("bars", "Bars of four", "", 4, 16, 1, 8, "make 4 to 16 bars"),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("%d bars of concert %s", v.count("bars"), concertNames(v.notes()))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM, w.pattern = v.tempo(), v.notes()
		w.countIn(readyText)
		w.breathe()
		w.add(scores.Segment{Phase: scores.Free, Beats: beatsOf(4 * v.count("bars")), Text: "Your tune"})
		w.end()
		var may []music.Spelling // so that the page can show what may be used
		for _, d := range v.notes() {
			may = append(may, w.s.KeyFifths.Spell(w.i.Written(w.place(d).note)))
		}
		calls := w.c.Naming.Calls(may)
		for _, s := range may {
			w.s.Items = append(w.s.Items, calls[s])
		}
	},
}
