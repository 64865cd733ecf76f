package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Air meter: the ball of a flow meter, up at once and steady.
var airMeter = Kind{
	Key:     "air-meter",
	Name:    "Air meter",
	Group:   scores.Breathing,
	Metered: true,
	Why:     "Air at once: the ball shows it before the note does.",
	Parts: []Param{
		repeats(4, 8),
		number("beats", "Beats each", "beats", 2, 8, 1, 4, "blow for 2 to 8 beats"),
		tempo(60),
	},
	Says: func(v Values) string { return fmt.Sprintf("%d times %.0f beats", v.count("repeats"), v.beats("beats")) },
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn("Hold the meter level.")
		for n := range v.count("repeats") {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(meterRest, "Rest.")
			}
			w.add(scores.Segment{Phase: scores.Out, Beats: v.beats("beats"), Text: "Blow: ball up at once"})
		}
		w.end()
		w.judge(measure.MeterDelay, meterPrompt)
		w.judge(measure.MeterSteady, meterSteady)
	},
}

const meterRest music.Beats = 6

const (
	meterPrompt = 0.25 // s
	meterSteady = 0.15 // spread of the flow, share
)
