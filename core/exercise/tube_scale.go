package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Tube-buzz scale: a scale down an octave on the slide tube or lead pipe,
// resting on every degree.
var tubeScale = Kind{
	Key:   "tube-buzz-scale",
	Name:  "Tube-buzz scale",
	Group: scores.Buzzing,
	Suits: isBrass,
	Why:   "The tube pulls at every note; your ear has to hold it.",
	Parts: []Param{
		number(
			"start",
			"Starts",
			"half steps above home's octave",
			0,
			3,
			1,
			3,
			"start from home's octave to three half steps above it",
		),
		number("beats", "Beats on each degree", "beats", 1, 4, 1, 2, "rest on each degree for 1 to 4 beats"),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"concert %s down an octave, %.0f beats on each degree",
			(12 + Degree(v.number("start"))).ConcertName(),
			v.beats("beats"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		top := w.i.Home() + 12 + music.MIDI(v.number("start"))
		for top > w.i.Beginner.To+reachOfBuzz {
			top -= 12
		}
		w.countIn("On the slide tube or lead pipe: hold it to your lips.")
		w.breathe()
		for n := len(major); n >= 0; n-- {
			step := Degree(12)
			if n < len(major) {
				step = major[n]
			}
			if n == len(major)/2 {
				w.rest(4, "Rest, and breathe.")
			}
			w.at(top-12+music.MIDI(step), v.beats("beats"), as(scores.Buzz), slurIf(len(major)-n))
		}
		w.end()
		w.judge(measure.Plateaus, 0)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
	},
}

// reachOfBuzz is how far lips alone go beyond the beginner range.
const reachOfBuzz music.MIDI = 2
