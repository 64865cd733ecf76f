package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
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
			Option{"low", "the lower joint or hand"},
			Option{"upper", "the upper joint or hand"},
			Option{"throat", "the throat piece, where there is one"},
			Option{"whole", "all of it"},
		),
		writtenTurns(),
		choice("way", "Way", "both", Option{"both", "up and down"}, Option{"up", "up"}, Option{"down", "down"}),
		choice("group", "In", "two", Option{"two", "twos"}, Option{"three", "threes"}),
		number("loops", "Loops", "", 1, 4, 1, 2, "go round 1 to 4 times"),
		fingersFirst(),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("%s, in %ss, %s%d loops at %.0f",
			saysHalf(v),
			v.choice("group"),
			map[string]string{"up": "up only, ", "down": "down only, "}[v.choice("way")],
			v.count("loops"),
			v.tempo())
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		each := music.Beats(1) / beatsOf(map[string]int{"two": 2, "three": 3}[v.choice("group")])
		span := w.loopSpan(v)
		w.hands.Chromatic = true
		w.countIn(readyText)
		for n := range v.count("loops") {
			w.hands.Repeat = w.player.Repeat + n
			if n == 0 {
				w.breathe()
			} else {
				w.rest(4, "Breathe.")
			}
			w.loop(span, v.choice("way"), each)
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

// writtenTurns are the lowest and the highest note of a loop as one section reads them:
// two neighbours isolate one change.
func writtenTurns() Param {
	p := writtenNotes(2)
	p.Label = "Or between two notes, as one section reads them"
	p.Remedy = "name the lowest and the highest written note with their octaves: E3, C4"
	return p
}

func saysHalf(v Values) string {
	if turns := v.written(); len(turns) == 2 {
		return "written " + turns[0] + " to " + turns[1]
	}
	return map[string]string{
		"low": "lower half", "upper": "upper half", "throat": "throat piece", "whole": "all of it",
	}[v.choice("half")]
}

// loopSpan is between which notes a loop turns round: those picked for the section, or
// the joint or hand that was asked for, as far as the stage reaches.
func (w *writer) loopSpan(v Values) instrument.Span {
	if turns, ok := w.picked(v); ok && len(turns) == 2 {
		return instrument.Span{From: min(turns[0], turns[1]), To: max(turns[0], turns[1])}
	}
	half, stage := half(w.i, v.choice("half"), v.choice("group")), w.stage.Span(w.i)
	reached := instrument.Span{From: max(half.From, stage.From), To: min(half.To, stage.To)}
	if reached.To-reached.From >= fewestLooped {
		return reached
	}
	w.notice(fmt.Sprintf("%s loops round its home note: that half lies outside what this stage asks for.", w.i.Name))
	return instrument.Span{From: max(stage.From, w.i.Home()-fewestLooped), To: w.i.Home() + fewestLooped}
}

// fewestLooped is how many half steps make a loop.
const fewestLooped music.MIDI = 2

// loop goes up and down by half steps, slurred, or one way only.
func (w *writer) loop(span instrument.Span, way string, each music.Beats) {
	side := w.beganBy(span)
	first := true
	add := func(m music.MIDI) {
		set := slurred
		if first {
			set = func(*scores.Segment) {}
		}
		first = false
		w.at(m, each, set, func(s *scores.Segment) { s.Side = side })
	}
	w.hands.Falling = false
	if way != "down" {
		for m := span.From; m <= span.To; m++ {
			add(m)
		}
	}
	w.hands.Falling = true
	from := span.To - 1
	if way == "down" {
		from = span.To
	}
	if way == "both" && w.s.TempoBPM.Seconds(2*music.Beats(span.To-span.From)*each+each) > oneBreath {
		w.rest(4, "Breathe at the turn.")
		from, first = span.To, true
	}
	if way != "up" {
		for m := from; m >= span.From; m-- {
			add(m)
		}
	}
	w.hands.Falling = false
}

// beganBy is which little finger begins a clarinet's loop over low E, F and F♯; "" for
// any other.
func (w *writer) beganBy(span instrument.Span) string {
	if w.i.Family != instrument.Clarinets || w.i.Written(span.From) > lowFSharp {
		return ""
	}
	if w.hands.BeginsLeft() {
		return "left"
	}
	return "right"
}

const lowFSharp music.MIDI = 54 // written

// half is the notes of a joint or hand, sounding (from memory, but for the clarinet's,
// which are its joints: common practice, no published source). Brass have no joints: theirs
// lie round home.
func half(i instrument.Instrument, which, group string) instrument.Span {
	of, ok := halves[i.Family]
	if own, has := ownHalves[i.Key]; has {
		of, ok = own, true
	}
	if !ok {
		of = [3]instrument.Span{{From: -5, To: 0}, {From: 0, To: 5}, {From: -5, To: 5}}
		for n := range of {
			of[n].From += i.Written(i.Home())
			of[n].To += i.Written(i.Home())
		}
	}
	span := of[2]
	switch which {
	case "low":
		span = of[0]
	case "upper":
		span = of[1]
	case "throat":
		span = of[1]
		if i.Family == instrument.Clarinets {
			span = instrument.Span{From: 64, To: 70}
		}
	default:
		if i.Family == instrument.Clarinets && group == "three" {
			span.To = 70 // so that the threes come out
		}
	}
	by := music.MIDI(i.Transposition)
	return instrument.Span{From: span.From - by, To: span.To - by}
}

// halves are the lower joint or hand, the upper, and the whole, written.
var halves = map[instrument.Family][3]instrument.Span{
	instrument.Clarinets:   {{From: 52, To: 60}, {From: 60, To: 68}, {From: 52, To: 68}},
	instrument.Saxophones:  {{From: 62, To: 67}, {From: 67, To: 73}, {From: 62, To: 73}},
	instrument.Flutes:      {{From: 62, To: 67}, {From: 67, To: 73}, {From: 62, To: 73}},
	instrument.DoubleReeds: {{From: 62, To: 67}, {From: 67, To: 72}, {From: 62, To: 72}},
	instrument.Recorders:   {{From: 60, To: 67}, {From: 67, To: 74}, {From: 60, To: 74}},
}

// ownHalves are those of instruments that are not like their family.
var ownHalves = map[string][3]instrument.Span{
	"bassoon":       {{From: 43, To: 48}, {From: 48, To: 53}, {From: 43, To: 53}},
	"alto-recorder": {{From: 65, To: 72}, {From: 72, To: 79}, {From: 65, To: 79}},
}
