package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
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
		choice(
			"from",
			"From",
			"low",
			Option{"low", "the low note's fingering at once"},
			Option{"real", "the note as it is fingered, then the same pitch as an overtone"},
		),
		choice("way", "Way", "up", Option{"up", "up"}, Option{"both", "up and down again"}),
		number("beats", "Beats each", "beats", 2, 8, 1, 4, "hold each for 2 to 8 beats"),
		restBeats(4),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("low B♭ fingering, partials 2 to %d%s%s, %s each", v.count("to"),
			map[string]string{"real": ", each from its own fingering"}[v.choice("from")],
			map[string]string{"both": ", up and down"}[v.choice("way")], sayBeats(v.beats("beats")))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		fingered, partials := w.i.Overtones()
		w.countIn("Finger low B♭ and keep it.")
		for n, k := range overtoneWay(v.count("to")-1, v.choice("way")) {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(v.beats("rest_beats"), "Rest, hear the next one.")
			}
			if v.choice("from") == "real" {
				w.at(partials[k], v.beats("beats"))
				w.overtone(k+2, partials[k], fingered, v.beats("beats"), slurred)
				continue
			}
			w.overtone(k+2, partials[k], fingered, v.beats("beats"))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.HoldTime, overtoneHeld)
	},
}

// overtoneWay is which overtones come, from 0 for the second partial: up, or up and down.
func overtoneWay(count int, way string) (out []int) {
	for k := range count {
		out = append(out, k)
	}
	if way == "both" {
		for k := count - 2; k >= 0; k-- {
			out = append(out, k)
		}
	}
	return out
}

// overtone asks for a partial of a fingered note.
func (w *writer) overtone(
	partial int,
	note, fingered music.MIDI,
	beats music.Beats,
	set ...func(*scores.Segment),
) {
	low, _ := w.i.Fingering(fingered, w.hands)
	w.at(note, beats, append(set, func(s *scores.Segment) {
		s.Text = fmt.Sprintf("Partial %d: %s on low B♭", partial, s.WrittenName)
	})...)
	last := &w.s.Segments[len(w.s.Segments)-1]
	last.Fingering, last.Fingered = &low, fingered
}

const overtoneHeld = 2. // s
