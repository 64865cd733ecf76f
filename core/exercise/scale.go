package exercise

import (
	"fmt"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Scale, or the arpeggio 1-3-5-8 of it.
var scale = Kind{
	Key:   "scale",
	Name:  "Scale or arpeggio",
	Group: scores.Patterns,
	Why:   "Every tune is made of pieces of these.",
	Parts: []Param{
		choice("form", "Form", "scale", Option{"scale", "scale"}, Option{"arpeggio", "arpeggio 1-3-5-8"}),
		number(
			"tonic",
			"Key",
			"half steps from home",
			-5,
			7,
			1,
			0,
			"choose a key from a fourth below home to a fifth above it",
		),
		choice("way", "Way", "both", Option{"up", "up"}, Option{"down", "down"}, Option{"both", "up and down"}),
		number("beats", "Beats each", "beats", 1, 4, 1, 1, "give each note 1 to 4 beats"),
		fingersFirst(),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s of concert %s, %s, %.0f beats each",
			v.choice("form"),
			Degree(v.number("tonic")).ConcertName(),
			map[string]string{"up": "up", "down": "down", "both": "up and down"}[v.choice("way")],
			v.beats("beats"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		steps := append(append([]Degree(nil), major...), 12)
		if v.choice("form") == "arpeggio" {
			steps = []Degree{0, 4, 7, 12}
		}
		tonic := w.whole(Degree(v.number("tonic")), steps)
		up := make([]Degree, len(steps))
		for n, s := range steps {
			up[n] = tonic + s
		}
		w.s.KeyFifths = w.s.KeyFifths.Transposed(int(v.number("tonic")))
		w.countIn(readyText)
		w.breathe()
		w.play(upAndDown(up, v.choice("way")), v.beats("beats"), breathEvery)
		w.end()
		w.judgePattern()
	},
}

// whole moves a pattern by an octave where more of it then lies within reach, so
// that it is not broken up note by note.
func (w *writer) whole(tonic Degree, steps []Degree) Degree {
	best, inside := tonic, -1
	for _, octave := range []Degree{0, -12, 12} {
		count := 0
		for _, s := range steps {
			if w.reaches(w.i.Home() + music.MIDI(tonic+octave+s)) {
				count++
			}
		}
		if count > inside {
			best, inside = tonic+octave, count
		}
	}
	if best != tonic {
		where := "lower"
		if best > tonic {
			where = "higher"
		}
		w.notice(fmt.Sprintf("%s plays it an octave %s, where the stage reaches.", w.i.Name, where))
	}
	return best
}

func beatsOf(n int) music.Beats { return music.Beats(n) }
