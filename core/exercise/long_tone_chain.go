package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Long tone, chain: slow tones upward or downward, each clear from start to end
// before the next.
var longToneChain = Kind{
	Key:   "long-tone-chain",
	Name:  "Long tone, chain",
	Group: scores.LongTones,
	Why:   "Each note is made beautiful before the next one may come.",
	Parts: []Param{
		number(
			"from",
			"From",
			"half steps from home",
			-5,
			12,
			1,
			0,
			"begin from a fourth below home to an octave above it",
		),
		number("to", "To", "half steps from home", -5, 12, 1, 5, "end from a fourth below home to an octave above it"),
		writtenEnds(),
		choice(
			"by",
			"Notes between",
			"chromatic",
			Option{"chromatic", "every half step"},
			Option{"scale", "the scale"},
		),
		number("seconds", "Each", "seconds", 6, 10, 1, 8, "hold each note for 6 to 10 seconds"),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s by %s, %.0f seconds each",
			saysEnds(v),
			map[string]string{"chromatic": "half steps", "scale": "the scale"}[v.choice("by")],
			v.number("seconds"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = 60
		w.countIn(readyText)
		for n, m := range w.chain(v) {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(chainRest, "Rest.")
			}
			w.at(m, music.Beats(v.seconds("seconds")))
		}
		w.end()
		w.judgeTone()
	},
}

const chainRest music.Beats = 4

// writtenEnds are the first and the last note of a chain as one section reads them.
func writtenEnds() Param {
	p := writtenNotes(2)
	p.Label = "Or from and to, as one section reads them"
	p.Remedy = "name the first and the last written note with their octaves: E3, B♭4"
	return p
}

func saysEnds(v Values) string {
	if ends := v.written(); len(ends) == 2 {
		return "written " + ends[0] + " to " + ends[1]
	}
	return fmt.Sprintf("concert %s to %s",
		Degree(v.number("from")).ConcertName(), Degree(v.number("to")).ConcertName())
}

// chain lists the notes of a chain: between written notes that the instrument has, or
// between concert notes as far as the stage reaches.
func (w *writer) chain(v Values) []music.MIDI {
	byScale := v.choice("by") == "scale"
	if ends, ok := w.picked(v); ok && len(ends) == 2 {
		home := w.i.Home()
		var out []music.MIDI
		for _, d := range run(Degree(ends[0]-home), Degree(ends[1]-home), byScale) {
			out = append(out, w.sounding(d))
		}
		return out
	}
	return w.turning(run(Degree(v.number("from")), Degree(v.number("to")), byScale))
}

// major are the steps of a major scale above its tonic.
var major = []Degree{0, 2, 4, 5, 7, 9, 11}

// run lists the degrees from one to another, by half steps or by home's scale.
func run(from, to Degree, byScale bool) []Degree {
	step := Degree(1)
	if to < from {
		step = -1
	}
	out := []Degree{}
	for d := from; ; d += step {
		if !byScale || inScale(d) || d == from || d == to {
			out = append(out, d)
		}
		if d == to {
			return out
		}
	}
}

func inScale(d Degree) bool {
	pc := (d%12 + 12) % 12
	for _, s := range major {
		if s == pc {
			return true
		}
	}
	return false
}
