package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Buzz to a target: between home and its fifth, landing where the ear is.
var buzzTarget = Kind{
	Key:   "buzz-to-a-target",
	Name:  "Buzz to a target",
	Group: scores.Buzzing,
	Suits: isBrass,
	Why:   "Hear the next note first, then buzz exactly there.",
	Parts: []Param{
		number("beats", "Beats each", "beats", 2, 8, 1, 4, "buzz each note for 2 to 8 beats"),
		repeats(2, 4),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("home's fifth and home, %s each, %d times", sayBeats(v.beats("beats")), v.count("repeats"))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM, w.pattern = v.tempo(), []Degree{7, 0}
		w.countIn(w.mouthpiece())
		for n := range v.count("repeats") {
			w.restAfterBuzz(n, 2*v.beats("beats"))
			for k, d := range w.pattern {
				w.tone(d, v.beats("beats"), as(scores.Buzz), slurIf(k))
			}
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.Landing, buzzLands)
		w.judge(measure.Settle, landsWithin)
	},
}

const (
	buzzLands   = 40.  // cents
	landsWithin = 0.25 // s
)
