package exercise

import (
	"slices"
	"strings"

	"earlychorus/core/fmt"
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
			Option{"upper", "the upper note alone"},
			Option{"down", "up and down again, slurred"},
			Option{"climb", "slurred up, then as high as you can"},
		),
		writtenLows(),
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
			"%s, %.0f beats low, then %.0f up, %s",
			saysPairs(v),
			v.beats("low_beats"),
			v.beats("beats"),
			map[string]string{
				"slurred": "slurred",
				"direct":  "the upper note by itself",
				"upper":   "the upper note alone",
				"down":    "slurred up and down",
				"climb":   "then as high as you can",
			}[v.choice("how")],
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.s.Crossing = w.i.Family == instrument.Clarinets
		lows := w.lows(v)
		w.countIn(readyText)
		for n := range lows {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(v.beats("rest_beats"), "Rest.")
			}
			w.pair(lows[n], v)
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoBreak, float64(w.s.Limits.Break))
		w.judge(measure.NoChirp, 0)
		w.judge(measure.Change, float64(w.s.Limits.ChangeTime))
		w.judge(measure.Response, float64(w.s.Limits.Start))
		if how := v.choice("how"); how == "slurred" || how == "down" {
			w.judge(measure.NoTongue, 0)
		}
		w.judge(measure.Undertone, longestUnder)
	},
}

// pair is one low note and its upper one, joined as asked.
func (w *writer) pair(low music.MIDI, v Values) {
	upper, _ := w.i.RegisterPair(low)
	up := saying(w.upWord(upper))
	switch v.choice("how") {
	case "upper":
		w.at(upper, v.beats("beats"), up)
	case "direct":
		w.at(low, v.beats("low_beats"))
		w.rest(4, "Rest, hear the upper note.")
		w.at(upper, v.beats("beats"))
	case "down":
		w.at(low, v.beats("low_beats"))
		w.at(upper, v.beats("beats"), slurred, up)
		w.at(low, v.beats("low_beats"), slurred)
	default:
		w.at(low, v.beats("low_beats"))
		w.at(upper, v.beats("beats"), slurred, up)
		if v.choice("how") == "climb" {
			w.climb(upper, v.beats("low_beats"))
		}
	}
}

// climb goes on up the scale from the first upper note, as high as the player can: its
// notes are tried, never held against anyone.
func (w *writer) climb(from music.MIDI, beats music.Beats) {
	notes := 0
	for m := from + 1; w.i.Beginner.Contains(m) && notes < climbNotes; m++ {
		if !inScale(Degree(m - w.i.Home())) {
			continue
		}
		notes++
		w.at(m, beats, slurred, func(s *scores.Segment) {
			s.Hard = true
			s.Text = s.WrittenName + ", if it comes"
		})
	}
}

const climbNotes = 4

// writtenLows are the low notes of pairs as one section reads them.
func writtenLows() Param {
	p := writtenNotes(6)
	p.Label = "Or which low notes, as one section reads them"
	return p
}

func saysPairs(v Values) string {
	if lows := v.written(); len(lows) > 0 {
		return "pairs on written " + strings.Join(lows, ", ")
	}
	return fmt.Sprintf("%d pairs", v.count("pairs"))
}

// lows are the low notes of the pairs asked for: those the director picked, where each
// has an upper one, or the first the instrument has.
func (w *writer) lows(v Values) []music.MIDI {
	picked, ok := w.picked(v)
	for _, low := range picked {
		if _, pairs := w.i.RegisterPair(low); !pairs {
			name := w.c.Naming.WithOctave(w.s.KeyFifths.Spell(w.i.Written(low)))
			w.notice(fmt.Sprintf("%s has no upper note on %s: it plays the usual pairs.", w.i.Name, name))
			ok = false
		}
	}
	if ok {
		return picked
	}
	lows, pairs := lowsOf(w.i), v.count("pairs")
	if v.choice("how") == "climb" {
		pairs = 1 // as high as one can is once enough
	}
	return lows[:min(pairs, len(lows))]
}

// oboesHalfHole is the written notes that an oboe's half hole opens; the octave keys have
// the ones above.
var oboesHalfHole = instrument.Span{From: 73, To: 75}

// upWord is what leads to an upper note, as the instrument calls it.
func (w *writer) upWord(upper music.MIDI) string {
	i := w.i
	switch i.Family {
	case instrument.Clarinets:
		return "Register key"
	case instrument.Saxophones:
		return "Octave key"
	case instrument.Recorders:
		return "Pinch the thumb hole"
	case instrument.DoubleReeds:
		if i.Key == "bassoon" {
			if upper <= bassoonsHalfHole {
				return "Half hole"
			}
			return "Flick key"
		}
		if oboesHalfHole.Contains(i.Written(upper)) {
			return "Half hole"
		}
		return "Octave key"
	}
	return w.c.Air.Say("Smaller opening, {faster}")
}

// bassoonsHalfHole is the highest written note of a bassoon's half hole, A♭3; above it
// come the flick keys.
const bassoonsHalfHole music.MIDI = 56

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
