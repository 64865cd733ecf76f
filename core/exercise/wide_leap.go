package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Wide leap: a fifth, a fourth, an octave or two, landing in tune.
var wideLeap = Kind{
	Key:   "wide-leap",
	Name:  "Wide leap",
	Group: scores.Registers,
	Why:   "Hear the far note before you go there.",
	Parts: []Param{
		choice(
			"leap",
			"Leap",
			"fifth",
			Option{"fourth", "a fourth"},
			Option{"fifth", "a fifth"},
			Option{"octave", "an octave"},
			Option{"two-octaves", "two octaves"},
		),
		notes(
			"From",
			1,
			0,
		),
		number("beats", "Beats each", "beats", 1, 8, 1, 2, "hold each note for 1 to 8 beats"),
		repeats(2, 6),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s from concert %s and back, %d times",
			leapNames[v.choice("leap")],
			concertNames(v.notes()),
			v.count("repeats"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		low := v.notes()[0]
		high := low + leaps[v.choice("leap")]
		w.pattern = []Degree{low, high}
		w.countIn(readyText)
		for n := range v.count("repeats") {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(4, "Rest.")
			}
			for _, d := range []Degree{low, high, low} {
				w.tone(d, v.beats("beats"))
			}
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.Landing, leapLands)
		w.judge(measure.Settle, landsWithin)
		w.judge(measure.Response, float64(w.s.Limits.Start))
	},
}

var (
	leaps     = map[string]Degree{"fourth": 5, "fifth": 7, "octave": 12, "two-octaves": 24}
	leapNames = map[string]string{
		"fourth":      "a fourth",
		"fifth":       "a fifth",
		"octave":      "an octave",
		"two-octaves": "two octaves",
	}
)

const leapLands = 30. // cents
