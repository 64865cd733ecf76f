package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Echo: see, hear or follow, and play the same back.
var echo = Kind{
	Key:   "echo",
	Name:  "Echo",
	Group: scores.Ear,
	Why:   "Ears first: the note is in your head before it is in the instrument.",
	Parts: []Param{
		notes(
			"Concert notes, in order",
			6,
			0,
			2,
			0,
		),
		writtenNotes(6),
		choice(
			"how",
			"How",
			"hear",
			Option{"hear", "hear and copy"},
			Option{"see", "see and copy"},
			Option{"canon", "follow one behind"},
		),
		number("beats", "Beats each", "beats", 1, 8, 1, 2, "give each note 1 to 8 beats"),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s, %s",
			saysNotes(v),
			map[string]string{"hear": "hear and copy", "see": "see and copy", "canon": "one behind"}[v.choice("how")],
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		line, beats := w.inARow(v), v.beats("beats")
		w.countIn(readyText)
		switch v.choice("how") {
		case "canon":
			w.canon(line, beats)
		case "hear":
			for _, m := range line {
				w.at(m, beats, as(scores.Listen), saying("Listen"))
			}
			fallthrough
		default:
			w.breathe()
			for _, m := range line {
				w.at(m, beats)
			}
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
	},
}

// canon follows one behind: the leader sounds the next note while the player plays the
// one before.
func (w *writer) canon(line []music.MIDI, beats music.Beats) {
	w.notice("The leader sounds while you play: use headphones if you have them. Only the pitch counts here.")
	w.at(line[0], max(beats, breathBeats), as(scores.Listen), saying("Listen, and breathe in"))
	for n, m := range line {
		w.at(m, beats, func(s *scores.Segment) {
			s.Text = "Play " + s.WrittenName
			if n+1 < len(line) {
				s.Leader = line[n+1]
				s.Text += ", and hear the next"
			}
		})
	}
}
