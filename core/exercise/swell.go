package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Swell: one note very soft, growing, very loud, fading, very soft.
var swell = Kind{
	Key:    "swell",
	Name:   "Swell",
	Group:  scores.LongTones,
	Breath: longestSwell,
	Why:    "Grow and fade with the air alone. The pitch stays where it is.",
	Parts: []Param{
		notes("Concert note", 1, 0),
		writtenNotes(1),
		number("beats", "Beats for each of five stretches", "beats", 2, 4, 1, 4, "give each stretch 2 to 4 beats"),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s, five times %.0f beats at %.0f: very soft, growing, very loud, fading, very soft",
			saysNotes(v),
			v.beats("beats"),
			v.tempo(),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		note := w.apart(v)[0]
		w.countIn(readyText)
		w.breathe()
		for n, d := range [][2]scores.Dynamic{{"pp", "pp"}, {"pp", "ff"}, {"ff", "ff"}, {"ff", "pp"}, {"pp", "pp"}} {
			w.at(note, v.beats("beats"), slurIf(n), loud(d[0], d[1]), saying(swellTexts[n]))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoBreak, float64(w.s.Limits.Break))
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.SwellRange, swellRange)
		w.judge(measure.SwellOrder, 0)
		w.judge(measure.PitchShift, swellShift)
		w.judge(measure.Response, float64(w.s.Limits.Start))
	},
}

var swellTexts = []string{"Very soft", "Grow", "Very loud", "Fade", "Very soft"}

// longestSwell is five stretches of four beats at 60 (common practice, no
// published source).
const longestSwell music.Seconds = 20

const (
	swellRange = 10. // dB
	swellShift = 25. // cents
)
