package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Chromatic loop: half steps up and down over half the instrument or all of it,
// grouped in twos or threes.
var chromaticLoop = Kind{
	Key:   "chromatic-loop",
	Name:  "Chromatic loop",
	Group: scores.Patterns,
	Why:   "Even fingers: every half step takes as long as the next.",
	Parts: []Param{
		choice(
			"half",
			"Which half",
			"low",
			Option{"low", "the lower"},
			Option{"upper", "the upper"},
			Option{"whole", "all of it"},
		),
		choice("group", "In", "two", Option{"two", "twos"}, Option{"three", "threes"}),
		number("loops", "Loops", "", 1, 4, 1, 2, "go round 1 to 4 times"),
		fingersFirst(),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s half, in %ss, %d loops at %.0f",
			v.choice("half"),
			v.choice("group"),
			v.count("loops"),
			v.tempo(),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		each := music.Beats(1) / beatsOf(map[string]int{"two": 2, "three": 3}[v.choice("group")])
		bounds := map[string][2]Degree{"low": {-5, 0}, "upper": {0, 5}, "whole": {-5, 5}}[v.choice("half")]
		span := w.stage.Span(w.i)
		w.hands.Chromatic = true
		w.countIn(readyText)
		for n := range v.count("loops") {
			w.hands.Repeat = w.player.Repeat + n
			if n == 0 {
				w.breathe()
			} else {
				w.rest(4, "Breathe.")
			}
			w.loop(bounds, span.From, span.To, each)
		}
		w.hands.Chromatic = false
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.Evenness, unevenRun)
		w.judge(measure.Pace, mostPace)
		w.judge(measure.TempoDrift, mostTempo)
	},
}

const unevenRun = 0.15 // spread of the notes' lengths

// loop goes up and down by half steps, slurred, within the notes that may be
// asked for.
func (w *writer) loop(bounds [2]Degree, least, most music.MIDI, each music.Beats) {
	low := max(least, w.i.Home()+music.MIDI(bounds[0]))
	high := min(most, w.i.Home()+music.MIDI(bounds[1]))
	first := true
	add := func(m music.MIDI) {
		set := slurred
		if first {
			set = func(*scores.Segment) {}
		}
		first = false
		w.at(m, each, set)
	}
	w.hands.Falling = false
	for m := low; m <= high; m++ {
		add(m)
	}
	w.hands.Falling = true
	for m := high - 1; m >= low; m-- {
		add(m)
	}
	w.hands.Falling = false
}
