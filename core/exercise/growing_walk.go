package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/scores"
)

// Growing walk: from the fifth to its neighbour and back, then one note farther each
// time, until all five are in it; or from home upward.
var growingWalk = Kind{
	Key:   "growing-walk",
	Name:  "Growing walk",
	Group: scores.Patterns,
	Why:   "One new note at a time, and always back to the one that works.",
	Parts: []Param{
		choice("from", "From", "fifth", Option{"fifth", "the fifth, down"}, Option{"home", "home, up"}),
		number("to", "As far as", "notes", 2, 5, 1, 5, "grow to 2, 3, 4 or 5 notes"),
		number("beats", "Beats each", "beats", 1, 4, 1, 1, "give each note 1 to 4 beats"),
		fingersFirst(),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("from %s, growing to %d notes, %s each at %.0f",
			map[string]string{"fifth": "concert F down", "home": "concert B♭ up"}[v.choice("from")],
			v.count("to"), sayBeats(v.beats("beats")), v.tempo())
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		way := FirstFive
		if v.choice("from") == "fifth" {
			way = upAndDown(FirstFive, "down")
		}
		w.countIn(readyText)
		for far := 2; far <= v.count("to"); far++ {
			if far == 2 {
				w.breathe()
			} else {
				w.rest(4, "Breathe.")
			}
			w.run(w.turning(upAndDown(way[:far], "both")), v.beats("beats"), breathEvery)
		}
		w.end()
		w.judgePattern()
	},
}
