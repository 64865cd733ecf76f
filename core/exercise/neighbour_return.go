package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Neighbour return: home, a neighbour, and back without hesitation.
var neighbourReturn = Kind{
	Key:   "neighbour-return",
	Name:  "Neighbour return",
	Group: scores.Patterns,
	Why:   "Fingers and air move at the same time.",
	Parts: []Param{
		notes(
			"Home",
			2,
			0,
		),
		writtenNotes(2),
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
			"%s and %s, %s each",
			saysNotes(v),
			map[string]string{
				"upper": "the note above", "lower": "the note below", "both": "both its neighbours",
			}[v.choice("neighbour")],
			sayBeats(v.beats("beats")),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn(readyText)
		first := true
		for range v.count("repeats") {
			for _, home := range w.apart(v) {
				if first {
					w.breathe()
				} else {
					w.rest(4, "Rest.")
				}
				first = false
				for _, m := range w.neighbours(home, v.choice("neighbour")) {
					w.at(m, v.beats("beats"))
				}
			}
		}
		w.end()
		w.judgePattern()
	},
}

// neighbours is a note, its neighbours in the scale of home, and the way back. A
// neighbour that the player does not reach gives way to the one on the other side.
func (w *writer) neighbours(home music.MIDI, which string) []music.MIDI {
	d := Degree(home - w.i.Home())
	above, below := d+1, d-1
	for !inScale(above) {
		above++
	}
	for !inScale(below) {
		below--
	}
	up, down := w.sounding(above), w.sounding(below)
	hasUp, hasDown := w.has(up), w.has(down)
	if which != "upper" && !hasDown && hasUp {
		w.notice(fmt.Sprintf("%s goes to the note above: the one below lies outside %s.", w.i.Name, w.outside(down)))
		which = "upper"
	}
	if which != "lower" && !hasUp && hasDown {
		w.notice(fmt.Sprintf("%s goes to the note below: the one above lies outside %s.", w.i.Name, w.outside(up)))
		which = "lower"
	}
	switch {
	case !hasUp && !hasDown:
		return []music.MIDI{home, home, home}
	case which == "upper":
		return []music.MIDI{home, up, home}
	case which == "lower":
		return []music.MIDI{home, down, home}
	}
	return []music.MIDI{home, up, home, down, home}
}

// has reports whether a neighbour may be played: a known note, or one the stage reaches;
// beside a note that was picked out of the stage's reach, any the instrument has.
func (w *writer) has(m music.MIDI) bool {
	if w.reaches(m) {
		return true
	}
	return len(w.player.Known) == 0 && w.beyond && w.i.Beginner.Contains(m)
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

// run adds the notes of a pattern, a breath after so many beats.
func (w *writer) run(notes []music.MIDI, beats, breathAfter music.Beats, set ...func(*scores.Segment)) {
	breathAfter = min(breathAfter, w.s.TempoBPM.Beats(oneBreath))
	sinceBreath := music.Beats(0)
	for _, m := range notes {
		if sinceBreath > 0 && sinceBreath+beats > breathAfter {
			w.rest(4, "Breathe.")
			sinceBreath = 0
		}
		w.at(m, beats, set...)
		sinceBreath += beats
	}
}
