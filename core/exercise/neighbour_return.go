package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Neighbour return: home, a neighbour, and back without hesitation.
var neighbourReturn = Kind{
	Key:   "neighbour-return",
	Name:  "Neighbour return",
	Group: scores.Patterns,
	Why:   "Fingers and air change together, without waiting.",
	Parts: []Param{
		notes(
			"Home",
			2,
			0,
		),
		choice(
			"neighbour",
			"Neighbour",
			"upper",
			Option{"upper", "the one above"},
			Option{"lower", "the one below"},
			Option{"both", "both"},
		),
		number(
			"beats",
			"Beats each",
			"beats",
			1,
			4,
			1,
			2,
			"give each note 1 to 4 beats",
		),
		repeats(2, 4),
		fingersFirst(),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"concert %s and %s, %.0f beats each",
			concertNames(v.notes()),
			map[string]string{
				"upper": "the note above", "lower": "the note below", "both": "both its neighbours",
			}[v.choice("neighbour")],
			v.beats("beats"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn(readyText)
		first := true
		for range v.count("repeats") {
			for _, home := range v.notes() {
				if first {
					w.breathe()
				} else {
					w.rest(4, "Rest.")
				}
				first = false
				w.pattern = neighbours(home, v.choice("neighbour"))
				for _, d := range w.pattern {
					w.tone(d, v.beats("beats"))
				}
			}
		}
		w.end()
		w.judgePattern()
	},
}

func neighbours(home Degree, which string) []Degree {
	above, below := home+1, home-1
	for !inScale(above) {
		above++
	}
	for !inScale(below) {
		below--
	}
	switch which {
	case "upper":
		return []Degree{home, above, home}
	case "lower":
		return []Degree{home, below, home}
	}
	return []Degree{home, above, home, below, home}
}

const (
	patternCentre = 30.  // cents
	mostPace      = 8.   // per cent faster or slower than the tempo in force
	mostTempo     = 8.   // per cent faster or slower over the step
	onTheBeat     = 0.1  // s
	quickChange   = 0.15 // s
)

// judgePattern adds what notes in a row are judged by.
func (w *writer) judgePattern() {
	w.judge(measure.Speaks, 0)
	w.judge(measure.RightNote, 0)
	w.judge(measure.NoBreak, float64(w.s.Limits.Break))
	w.judge(measure.NoChirp, 0)
	w.judge(measure.Centre, max(patternCentre, float64(w.s.Limits.Centre)))
	w.judge(measure.Change, max(quickChange, float64(w.s.Limits.ChangeTime)))
	w.judge(measure.Pace, mostPace)
	w.judge(measure.TempoDrift, mostTempo)
	w.judge(measure.Response, float64(w.s.Limits.Start))
}

// play adds the notes of a pattern, a breath after so many beats.
func (w *writer) play(degrees []Degree, beats, breathAfter music.Beats, set ...func(*scores.Segment)) {
	w.pattern = degrees
	breathAfter = min(breathAfter, w.s.TempoBPM.Beats(oneBreath))
	sinceBreath := music.Beats(0)
	for _, d := range degrees {
		if sinceBreath+beats > breathAfter {
			w.rest(4, "Breathe.")
			sinceBreath = 0
		}
		w.tone(d, beats, set...)
		sinceBreath += beats
	}
}
