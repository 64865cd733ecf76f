package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Rhythm on a note: one whole, two halves, four quarters, by the tongue; all on each
// note, or one rhythm a note.
var rhythmOnANote = Kind{
	Key:       "rhythm-on-a-note",
	Name:      "Rhythm on a note",
	Group:     scores.Patterns,
	Unpitched: true,
	Why:       "The tongue divides the air; the air does not stop.",
	Parts: []Param{
		notes("Concert notes", 4, 0),
		writtenNotes(4),
		choice(
			"each",
			"On each note",
			"all",
			Option{"all", "a whole, two halves, four quarters"},
			Option{"turn", "one rhythm: the first note a whole, the second halves, the third quarters, and again"},
		),
		fingersFirst(),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("%s: %s", saysNotes(v), map[string]string{
			"all":  "a whole, two halves, four quarters",
			"turn": "a whole, halves and quarters in turn",
		}[v.choice("each")])
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		if !w.i.IsPitched() {
			w.onAPad(v)
			return
		}
		w.countIn(readyText)
		w.breathe()
		for n, m := range w.inARow(v) {
			rhythms := wholeToQuarters
			if v.choice("each") == "turn" {
				rhythms = wholeToQuarters[n%len(wholeToQuarters):][:1]
			}
			for k, count := range rhythms {
				if n > 0 || k > 0 {
					w.rest(4, "Rest.")
				}
				for range count {
					w.at(m, 4/beatsOf(count))
				}
			}
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.Timing, onTheBeat)
		w.judge(measure.Pace, mostPace)
		w.judge(measure.TempoDrift, mostTempo)
	},
}

// onAPad is the same rhythm struck, beat for beat as the others play it.
func (w *writer) onAPad(v Values) {
	ready := "Sticks ready."
	if w.i.Family == instrument.NoneYet {
		ready = "Hands ready to clap."
	}
	w.countIn(ready)
	w.add(scores.Segment{Phase: scores.Rest, Beats: breathBeats, Text: "Count yourself in."})
	for n := range max(len(v.notes()), len(v.written())) {
		rhythms := wholeToQuarters
		if v.choice("each") == "turn" {
			rhythms = wholeToQuarters[n%len(wholeToQuarters):][:1]
		}
		for k, count := range rhythms {
			if n > 0 || k > 0 {
				w.add(scores.Segment{Phase: scores.Rest, Beats: 4, Text: "Rest, and count."})
			}
			for range count {
				w.strike(4 / beatsOf(count))
			}
		}
	}
	w.end()
	w.judge(measure.Strokes, 0)
	w.judge(measure.StrokeTiming, onTheBeat)
}

// strike adds a stroke on a pad, written on the middle line.
func (w *writer) strike(beats music.Beats) {
	middle := music.Spelling{Step: "B", Octave: 4}
	text, name := "Strike", "stroke"
	if w.i.Family == instrument.NoneYet {
		text, name = "Clap", "clap"
	}
	w.add(scores.Segment{
		Phase:       scores.Strike,
		Beats:       beats,
		Text:        text,
		Written:     &middle,
		WrittenName: name,
	})
}

// wholeToQuarters is how many notes share four beats.
var wholeToQuarters = []int{1, 2, 4}
