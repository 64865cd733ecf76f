package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// High buzz and low buzz: two regions, well apart.
var highLowBuzz = Kind{
	Key:   "high-low-buzz",
	Name:  "High buzz, low buzz",
	Group: scores.Buzzing,
	Suits: isBrass,
	Why:   "Firm corners for high, relaxed and warm for low.",
	Parts: []Param{
		choice(
			"first",
			"First",
			"class",
			Option{"class", "as the class begins"},
			Option{"low", "low"},
			Option{"high", "high"},
		),
		number("beats", "Beats each", "beats", 2, 8, 1, 6, "buzz for 2 to 8 beats"),
		tempo(60),
	},
	Says: func(v Values) string { return fmt.Sprintf("one of each, %.0f beats", v.beats("beats")) },
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		degrees := []Degree{-5, 7}
		texts := []string{"Low buzz: relaxed, warm air", "High buzz: firm corners, fast air"}
		if first := v.choice("first"); first == "high" || first == "class" && w.c.Begin == HighFirst {
			degrees, texts = []Degree{7, -5}, []string{texts[1], texts[0]}
		}
		w.countIn(w.mouthpiece())
		for n, d := range degrees {
			w.restAfterBuzz(n, v.beats("beats"))
			w.tone(d, v.beats("beats"), as(scores.Buzz), saying(texts[n]))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.OwnCentre, ownPitch)
		w.judge(measure.HighAbove, aFourth)
	},
}

const aFourth = 500. // cents
