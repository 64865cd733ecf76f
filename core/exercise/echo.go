package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Echo: see, hear or follow, and play the same back.
var echo = Kind{
	Key:   "echo",
	Name:  "Echo",
	Group: scores.Ear,
	Why:   "Ears first: the note is in your head before it is in the instrument.",
	Parts: []Param{
		notes(
			"Concert notes, in order",
			6,
			0,
			2,
			0,
		),
		choice(
			"how",
			"How",
			"hear",
			Option{"hear", "hear and copy"},
			Option{"see", "see and copy"},
			Option{"canon", "follow one behind"},
		),
		number("beats", "Beats each", "beats", 1, 8, 1, 2, "give each note 1 to 8 beats"),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"concert %s, %s",
			concertNames(v.notes()),
			map[string]string{"hear": "hear and copy", "see": "see and copy", "canon": "one behind"}[v.choice("how")],
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM, w.pattern = v.tempo(), v.notes()
		w.countIn(readyText)
		if v.choice("how") == "canon" {
			for _, d := range v.notes() {
				w.tone(d, v.beats("beats"), as(scores.Listen), saying("Listen"))
				w.breathe()
				w.tone(d, v.beats("beats"))
			}
		} else {
			if v.choice("how") == "hear" {
				for _, d := range v.notes() {
					w.tone(d, v.beats("beats"), as(scores.Listen), saying("Listen"))
				}
			}
			w.breathe()
			for _, d := range v.notes() {
				w.tone(d, v.beats("beats"))
			}
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
	},
}
