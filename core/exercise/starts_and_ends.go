package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Starts and ends: a note begun and ended with care, soft and loud.
var startsAndEnds = Kind{
	Key:   "starts-and-ends",
	Name:  "Starts and ends",
	Group: scores.LongTones,
	Why:   "A note should speak at once and end without falling.",
	Parts: []Param{
		notes("Concert note", 2, 0),
		choice(
			"start",
			"Start",
			"class",
			Option{"class", "as the class begins"},
			Option{"tongued", "with the tongue"},
			Option{"breath", "with the breath alone"},
		),
		choice(
			"loudness",
			"Loudness",
			"soft-loud",
			Option{"soft-loud", "soft and loud in turn"},
			Option{"extremes", "very soft and very loud in turn"},
			Option{"even", "comfortable"},
		),
		choice(
			"end",
			"End",
			"class",
			Option{"class", "as the class ends"},
			Option{"taper", "air tapers, no tongue"},
			Option{"stopped", "stopped"},
		),
		repeats(4, 8),
		number("beats", "Beats each", "beats", 2, 8, 1, 4, "hold each note for 2 to 8 beats"),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"concert %s, %d times, %s start, %s end",
			concertNames(v.notes()),
			v.count("repeats"),
			map[string]string{"class": "the class's", "tongued": "tongued", "breath": "breath"}[v.choice("start")],
			map[string]string{"class": "the class's", "taper": "tapered", "stopped": "stopped"}[v.choice("end")],
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM, w.pattern = v.tempo(), v.notes()
		pairs := map[string][2]scores.Dynamic{
			"soft-loud": {"p", "f"}, "extremes": {"pp", "ff"}, "even": {"mf", "mf"},
		}[v.choice("loudness")]
		w.countIn(readyText)
		for n := range v.count("repeats") {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(startsRest, "Rest.")
			}
			w.tone(
				v.notes()[n%len(v.notes())],
				v.beats("beats"),
				loud(pairs[n%2], pairs[n%2]),
				w.begins(v.choice("start")),
			)
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.Response, promptly)
		w.judge(measure.Scoop, leastScooped)
		w.judge(measure.Begins, 0)
		w.judge(measure.Contrast, leastContrast)
		if v.choice("end") == "taper" || v.choice("end") == "class" && w.c.End == TaperedEnd {
			w.judge(measure.Taper, leastTaper)
			w.judge(measure.EndBend, mostFall)
		}
	},
}

// begins is how the notes begin: as chosen, or as the class does it.
func (w *writer) begins(how string) func(*scores.Segment) {
	if how == "class" {
		return starting(w.c.Start)
	}
	return starting(scores.Articulation(how))
}

const startsRest music.Beats = 4

const (
	leastContrast = 8.   // dB
	promptly      = 0.15 // s
	leastScooped  = 30.  // cents
	leastTaper    = 0.15 // s
	mostFall      = 20.  // cents
)
