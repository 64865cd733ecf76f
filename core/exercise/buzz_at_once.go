package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Buzz at once: the buzz speaks on its beat and goes on.
var buzzAtOnce = Kind{
	Key:   "buzz-at-once",
	Name:  "Buzz at once",
	Group: scores.Buzzing,
	Suits: isBrass,
	Why:   "Lips that buzz at once play at once.",
	Parts: []Param{number("beats", "Beats", "beats", 2, 8, 1, 4, "buzz for 2 to 8 beats"), repeats(4, 8), tempo(60)},
	Says: func(v Values) string {
		return fmt.Sprintf("%d times %.0f beats, rest as long", v.count("repeats"), v.beats("beats"))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn(w.mouthpiece())
		for n := range v.count("repeats") {
			w.restAfterBuzz(n, v.beats("beats"))
			w.at(w.i.Home(), v.beats("beats"), as(scores.Buzz))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.Response, promptly)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.OwnCentre, ownPitch)
		w.judge(measure.Held, buzzHeld)
	},
}

const ownPitch = 100. // cents around itself
