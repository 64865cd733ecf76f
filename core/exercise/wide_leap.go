package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Wide leap: a fifth, a fourth, an octave or two, landing in tune.
var wideLeap = Kind{
	Key:   "wide-leap",
	Name:  "Wide leap",
	Group: scores.Registers,
	Why:   "Hear the far note before you go there.",
	Parts: []Param{
		choice(
			"leap",
			"Leap",
			"fifth",
			Option{"fourth", "a fourth"},
			Option{"fifth", "a fifth"},
			Option{"octave", "an octave"},
			Option{"two-octaves", "two octaves"},
		),
		notes(
			"From",
			1,
			0,
		),
		writtenNotes(1),
		number("beats", "Beats each", "beats", 1, 8, 1, 2, "hold each note for 1 to 8 beats"),
		repeats(2, 6),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s from %s and back, %d times",
			leapNames[v.choice("leap")],
			saysNotes(v),
			v.count("repeats"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		low, high := w.leap(v)
		w.countIn(readyText)
		for n := range v.count("repeats") {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(4, "Rest.")
			}
			for _, m := range []music.MIDI{low, high, low} {
				w.at(m, v.beats("beats"))
			}
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.Landing, leapLands)
		w.judge(measure.Settle, landsWithin)
		w.judge(measure.Response, float64(w.s.Limits.Start))
	},
}

// leap is where the leap goes from and to. Where the instrument or the stage is too
// narrow for it, it is the widest that fits.
func (w *writer) leap(v Values) (low, high music.MIDI) {
	wanted := leaps[v.choice("leap")]
	for _, narrower := range []string{v.choice("leap"), "octave", "fifth", "fourth"} {
		by := leaps[narrower]
		if by > wanted {
			continue
		}
		low, high, fits := w.leapBy(v, by)
		if !fits {
			continue
		}
		if by < wanted {
			w.notice(fmt.Sprintf("%s leaps %s: %s is wider than what this stage asks for.",
				w.i.Name, leapNames[narrower], leapNames[v.choice("leap")]))
		}
		return low, high
	}
	return w.sounding(0), w.i.FirstFive[4] // its first fifth, which every player has
}

// leapBy is the leap by so many half steps; fits is whether all of it is reached.
func (w *writer) leapBy(v Values, by Degree) (low, high music.MIDI, fits bool) {
	if own, ok := w.picked(v); ok {
		high = own[0] + music.MIDI(by)
		return own[0], high, w.i.Beginner.Contains(high)
	}
	pair := []Degree{v.notes()[0], v.notes()[0] + by}
	if _, fits = w.octaveOf(pair); !fits {
		return 0, 0, false
	}
	line := w.line(pair)
	return line[0], line[1], true
}

var (
	leaps     = map[string]Degree{"fourth": 5, "fifth": 7, "octave": 12, "two-octaves": 24}
	leapNames = map[string]string{
		"fourth":      "a fourth",
		"fifth":       "a fifth",
		"octave":      "an octave",
		"two-octaves": "two octaves",
	}
)

const leapLands = 30. // cents
