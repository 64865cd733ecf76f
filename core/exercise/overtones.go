package exercise

import (
	"fmt"

	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Overtones on one fingering: partials 2 to 5 of the saxophone's low B flat.
var overtones = Kind{
	Key:   "overtones",
	Name:  "Overtones on one fingering",
	Group: scores.Registers,
	Suits: func(i instrument.Instrument) bool { return i.Family == instrument.Saxophones },
	Why:   "The throat finds each note before the fingers help it.",
	Parts: []Param{
		number("to", "Up to partial", "", 2, 5, 1, 3, "go up to partial 2, 3, 4 or 5"),
		number("beats", "Beats each", "beats", 2, 8, 1, 4, "hold each for 2 to 8 beats"),
		restBeats(4),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("low B♭ fingering, partials 2 to %d, %.0f beats each", v.count("to"), v.beats("beats"))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		fingered, partials := w.i.Overtones()
		low, _ := w.i.Fingering(fingered, w.hands)
		w.countIn("Finger low B♭ and keep it.")
		for n, m := range partials[:v.count("to")-1] {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(v.beats("rest_beats"), "Rest, hear the next one.")
			}
			w.at(m, v.beats("beats"))
			last := &w.s.Segments[len(w.s.Segments)-1]
			last.Fingering, last.Fingered = &low, fingered
			last.Text = fmt.Sprintf("Partial %d: %s on low B♭", n+2, last.WrittenName)
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.HoldTime, overtoneHeld)
	},
}

const overtoneHeld = 2. // s
