package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/scores"
)

// Five-note walk: degrees one to five, up, down or both.
var fiveNoteWalk = Kind{
	Key:   "five-note-walk",
	Name:  "Five-note walk",
	Group: scores.Patterns,
	Why:   "The first five notes, one after the other, each as good as the first.",
	Parts: []Param{
		choice(
			"way",
			"Way",
			"both",
			Option{"up", "up"},
			Option{"down", "down"},
			Option{"both", "up and down"},
		),
		fingersFirst(),
		number("beats", "Beats each", "beats", 1, 4, 1, 2, "give each note 1 to 4 beats"),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s, %s each at %.0f",
			map[string]string{"up": "up", "down": "down", "both": "up and down"}[v.choice("way")],
			sayBeats(v.beats("beats")),
			v.tempo(),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		way := upAndDown(FirstFive, v.choice("way"))
		w.countIn(readyText)
		w.breathe()
		w.run(w.turning(way), v.beats("beats"), breathEvery)
		w.end()
		w.judgePattern()
	},
}

// breathEvery is how many beats a beginner plays on one breath.
const breathEvery = 12

// upAndDown returns degrees up, down, or up and then down without repeating the
// top.
func upAndDown(up []Degree, way string) []Degree {
	down := make([]Degree, 0, len(up))
	for n := len(up) - 1; n >= 0; n-- {
		down = append(down, up[n])
	}
	switch way {
	case "up":
		return append([]Degree(nil), up...)
	case "down":
		return down
	}
	return append(append([]Degree(nil), up...), down[1:]...)
}
