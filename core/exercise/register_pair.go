package exercise

import (
	"fmt"
	"slices"

	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Register pair: a low note, then what the instrument has for the upper one, and
// nothing else.
var registerPair = Kind{
	Key:   "register-pair",
	Name:  "Register pair",
	Group: scores.Registers,
	Suits: func(i instrument.Instrument) bool { return len(lowsOf(i)) > 0 },
	Why:   "The upper note is the low one with one thing more: a key, the thumb, or faster air.",
	Parts: []Param{
		number("pairs", "Pairs", "", 1, 6, 1, 3, "play 1 to 6 pairs"),
		choice(
			"how",
			"How",
			"slurred",
			Option{"slurred", "slurred from the low note"},
			Option{"direct", "the upper note by itself after it"},
		),
		number("low_beats", "Low note", "beats", 1, 4, 1, 2, "hold the low note for 1 to 4 beats"),
		number(
			"beats",
			"Upper note",
			"beats",
			2,
			8,
			1,
			4,
			"hold the upper note for 2 to 8 beats",
		),
		restBeats(4),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%d pairs, %.0f beats low, then %.0f up, %s",
			v.count("pairs"),
			v.beats("low_beats"),
			v.beats("beats"),
			v.choice("how"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.s.Crossing = w.i.Family == instrument.Clarinets
		lows := lowsOf(w.i)
		w.countIn(readyText)
		for n := range min(v.count("pairs"), len(lows)) {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(v.beats("rest_beats"), "Rest.")
			}
			upper, _ := w.i.RegisterPair(lows[n])
			w.at(lows[n], v.beats("low_beats"))
			if v.choice("how") == "direct" {
				w.rest(4, "Rest, hear the upper note.")
				w.at(upper, v.beats("beats"))
				continue
			}
			w.at(upper, v.beats("beats"), slurred, saying(upWord(w.i, upper)))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoBreak, float64(w.s.Limits.Break))
		w.judge(measure.NoChirp, 0)
		w.judge(measure.Change, float64(w.s.Limits.ChangeTime))
		w.judge(measure.Response, float64(w.s.Limits.Start))
		if v.choice("how") == "slurred" {
			w.judge(measure.NoTongue, 0)
		}
		w.judge(measure.Undertone, longestUnder)
	},
}

// oboesHalfHole is the written notes that an oboe's half hole opens; the octave keys have
// the ones above.
var oboesHalfHole = instrument.Span{From: 73, To: 75}

// upWord is what leads to an upper note, as the instrument calls it.
func upWord(i instrument.Instrument, upper music.MIDI) string {
	switch i.Family {
	case instrument.Clarinets:
		return "Register key"
	case instrument.Saxophones:
		return "Octave key"
	case instrument.Recorders:
		return "Pinch the thumb hole"
	case instrument.DoubleReeds:
		if oboesHalfHole.Contains(i.Written(upper)) {
			return "Half hole"
		}
		return "Octave key"
	}
	return "Smaller opening, faster air"
}

const longestUnder = 0.06 // s of the lower note under the start of the upper one

// lowsOf lists the low notes that have an upper one in the beginner range: from
// home down, then from home up. The way in is from what works.
func lowsOf(i instrument.Instrument) []music.MIDI {
	var down, up []music.MIDI
	for m := i.Beginner.From; m <= i.Beginner.To; m++ {
		if _, ok := i.RegisterPair(m); !ok || !isEasy(i, m-i.Home()) {
			continue
		}
		if m <= i.Home() {
			down = append(down, m)
		} else {
			up = append(up, m)
		}
	}
	slices.Reverse(down)
	return append(down, up...)
}

// isEasy reports whether a note at a distance from home is one that beginners
// know: the home scale, where clarinets read a B flat under their C.
func isEasy(i instrument.Instrument, m music.MIDI) bool {
	if i.Family == instrument.Clarinets && (m == -1 || m == -2) {
		return m == -2
	}
	return inScale(Degree(m))
}
