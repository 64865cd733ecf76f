package exercise

import (
	"slices"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Scale, or the arpeggio 1-3-5-8 of it, or the arpeggio up and the scale down; major or
// minor.
var scale = Kind{
	Key:   "scale",
	Name:  "Scale or arpeggio",
	Group: scores.Patterns,
	Why:   "Every tune is made of pieces of these.",
	Parts: []Param{
		choice(
			"form",
			"Form",
			"scale",
			Option{"scale", "scale"},
			Option{"arpeggio", "arpeggio 1-3-5-8"},
			Option{"mixed", "arpeggio up, scale down"},
		),
		choice(
			"mode",
			"Mode",
			"major",
			Option{"major", "major"},
			Option{"minor", "natural minor"},
			Option{"harmonic", "harmonic minor"},
		),
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
		form := map[string]string{
			"scale": "scale", "arpeggio": "arpeggio", "mixed": "arpeggio up and scale down",
		}[v.choice("form")]
		way := map[string]string{"up": ", up", "down": ", down", "both": ", up and down"}[v.choice("way")]
		if v.choice("form") == "mixed" {
			way = ""
		}
		mode := map[string]string{"minor": " minor", "harmonic": " harmonic minor"}[v.choice("mode")]
		return fmt.Sprintf("%s of concert %s%s%s, %s each",
			form, Degree(v.number("tonic")).ConcertName(), mode, way, sayBeats(v.beats("beats")))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		mode := modes[v.choice("mode")]
		w.s.KeyFifths = w.s.KeyFifths.Transposed(int(v.number("tonic")) + mode.signature)
		w.countIn(readyText)
		w.breathe()
		w.run(w.turning(mode.way(Degree(v.number("tonic")), v)), v.beats("beats"), breathEvery)
		w.end()
		w.judgePattern()
	},
}

// mode is a scale's steps above its tonic, and the key whose signature it is written in.
type mode struct {
	steps     []Degree
	third     Degree
	signature int // half steps from the tonic to the major key of the same signature
}

var modes = map[string]mode{
	"major":    {steps: append(slices.Clone(major), 12), third: 4},
	"minor":    {steps: []Degree{0, 2, 3, 5, 7, 8, 10, 12}, third: 3, signature: 3},
	"harmonic": {steps: []Degree{0, 2, 3, 5, 7, 8, 11, 12}, third: 3, signature: 3},
}

// way is the notes in the order they are played.
func (m mode) way(tonic Degree, v Values) []Degree {
	up := make([]Degree, len(m.steps))
	for n, s := range m.steps {
		up[n] = tonic + s
	}
	switch v.choice("form") {
	case "arpeggio":
		return upAndDown(chord(tonic, m.third), v.choice("way"))
	case "mixed":
		return append(chord(tonic, m.third), upAndDown(up, "down")[1:]...)
	}
	return upAndDown(up, v.choice("way"))
}

func beatsOf(n int) music.Beats { return music.Beats(n) }
