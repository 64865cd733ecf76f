package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Air, off the instrument: pinwheel, paper, balloon or toy, fast and slow.
var airOff = Kind{
	Key:       "air-off",
	Name:      "Air, off the instrument",
	Group:     scores.Breathing,
	Ticked:    true,
	Unpitched: true,
	Why:       "You can see the air here, before you hear it.",
	Parts: []Param{
		choice(
			"with",
			"With",
			"paper",
			Option{"paper", "a strip of paper at the wall"},
			Option{"pinwheel", "a pinwheel"},
			Option{"balloon", "a balloon"},
			Option{"hand", "your own hand"},
		),
		number("rounds", "Rounds", "", 1, 6, 1, 3, "do 1 to 6 rounds"),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("%s, %d rounds, rest between", airThings[v.choice("with")], v.count("rounds"))
	},
	Lay: func(w *writer, v Values) {
		thing := airThings[v.choice("with")]
		for n := range v.count("rounds") {
			air := w.c.Air.Say([]string{"{faster}", "{slower}"}[n%2])
			text := fmt.Sprintf("Round %d: %s, %s, then rest", n+1, thing, air)
			w.tick(scores.PictureAir, text, scores.Out, 8)
			w.add(scores.Segment{Phase: scores.Rest, Beats: 16, Text: "Breathe normally."})
		}
		w.judge(measure.TickedItems, 0)
	},
}

var airThings = map[string]string{
	"paper":    "a strip of paper",
	"pinwheel": "a pinwheel",
	"balloon":  "a balloon",
	"hand":     "your own hand",
}
