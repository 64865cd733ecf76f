package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Air pulses: the air pushes a long tone, or air alone, so many times a beat.
var airPulses = Kind{
	Key:   "air-pulses",
	Name:  "Air pulses",
	Group: scores.LongTones,
	Why:   "The air learns to move on purpose, and never to turn back.",
	Parts: []Param{
		notes(
			"Concert note",
			1,
			0,
		),
		number("pulses", "Pulses to a beat", "", 1, 4, 1, 2, "give each beat 1 to 4 pulses"),
		choice("on", "On", "note", Option{"note", "a note"}, Option{"air", "air alone"}),
		number("beats", "Beats", "beats", 4, 8, 1, 8, "go on for 4 to 8 beats"),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%d to a beat on %s, %.0f beats at %.0f",
			v.count("pulses"),
			map[string]string{"note": "concert " + concertNames(v.notes()), "air": "air alone"}[v.choice("on")],
			v.beats("beats"),
			v.tempo(),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM, w.pattern = v.tempo(), v.notes()
		w.countIn(readyText)
		w.breathe()
		if v.choice("on") == "air" {
			w.add(scores.Segment{
				Phase:  scores.Out,
				Beats:  v.beats("beats"),
				Bursts: v.count("pulses") * int(v.beats("beats")),
				Text:   "Push the air",
			})
			w.judge(measure.AirBursts, 0)
			w.judge(measure.AirEven, mostUneven)
		} else {
			w.tone(v.notes()[0], v.beats("beats"), func(s *scores.Segment) { s.Pulses = v.count("pulses") })
			w.judge(measure.Speaks, 0)
			w.judge(measure.RightNote, 0)
			w.judge(measure.NoGap, float64(w.s.Limits.Gap))
			w.judge(measure.PulseRate, pulseOff)
		}
		w.end()
	},
}

const pulseOff = 0.10 // share off the rate asked for
