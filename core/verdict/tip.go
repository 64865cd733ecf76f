package verdict

import (
	"slices"

	"earlychorus/core/instrument"
)

// Tip is one piece of advice.
type Tip struct {
	Key  string `json:"key"`
	Text string `json:"text"`
}

// advice is a row of the table of tips: which case it answers.
type advice struct {
	cause     Cause
	family    instrument.Family // "" answers every family
	direction int               // -1 too low or down, 1 too high or up, 0 either
	tip       Tip
}

// table holds the tips, special cases before general ones. The advice is
// common practice, no published source.
var table = []advice{
	{CauseRecording, "", 0, Tip{"recording", "Sit an arm's length from the microphone, choose a quiet corner and record again."}},

	{CauseWrongNote, instrument.Brass, 1, Tip{"brass-too-high", "You landed on a higher partial. Relax, drop the jaw a little and use warmer, slower air."}},
	{CauseWrongNote, instrument.Brass, -1, Tip{"brass-too-low", "You landed on a lower partial. Firm the corners of your mouth and use faster air."}},
	{CauseWrongNote, instrument.Clarinets, -1, Tip{"clarinet-low", "Check the thumb: roll it so that the register key opens while the hole stays covered."}},
	{CauseWrongNote, "", 0, Tip{"wrong-note", "Look at the fingering, hear the note once, sing it, then play it."}},

	{CauseBreak, instrument.Brass, 0, Tip{"brass-break", "Keep the air moving at one speed and the corners still: the note jumps when the air does."}},
	{CauseBreak, instrument.Saxophones, 1, Tip{"sax-jump-up", "The low note jumped up. Open the throat, think \"oh\", and check that every hole is covered."}},
	{CauseBreak, instrument.Clarinets, 1, Tip{"clarinet-break", "Check that every finger seals its hole: a small leak sends the note up a twelfth."}},
	{CauseBreak, "", -1, Tip{"undertone", "A lower note sounds with it. Use faster air and keep the embouchure firm from the start."}},
	{CauseBreak, "", 0, Tip{"break", "Cover the holes fully and keep the air even; start softly and let the note settle."}},

	{CauseNoResponse, instrument.Brass, 0, Tip{"brass-no-sound", "Buzz the note on the mouthpiece for four beats, rest, then play it."}},
	{CauseNoResponse, instrument.Flutes, 0, Tip{"flute-no-sound", "Find the sound on the headjoint first: roll it a little until it speaks."}},
	{CauseNoResponse, "", 0, Tip{"no-sound", "Breathe on the beat before, let the air go first and the tongue only open the door."}},

	{CauseGap, instrument.Brass, 0, Tip{"brass-gap", "The buzz stopped. Keep the lips together and let the air carry on, as if you blew through the note."}},
	{CauseGap, "", 0, Tip{"gap", "The air stopped. Take a low, full breath and spread it over all the beats."}},

	{CauseCentre, instrument.Flutes, -1, Tip{"flute-flat", "Flat: raise the air a little and support it from below; check how far you roll in."}},
	{CauseCentre, instrument.Flutes, 1, Tip{"flute-sharp", "Sharp: aim the air lower and relax the lips."}},
	{CauseCentre, instrument.Brass, -1, Tip{"brass-flat", "Flat: firm corners and faster air. If it stays flat when you are warm, push the tuning slide in a little."}},
	{CauseCentre, instrument.Brass, 1, Tip{"brass-sharp", "Sharp: relax and let the jaw drop a little. If it stays sharp when you are warm, pull the tuning slide out a little."}},
	{CauseCentre, instrument.Recorders, 1, Tip{"recorder-sharp", "Sharp: blow more gently, as if warming your hands."}},
	{CauseCentre, "", -1, Tip{"flat", "Flat: support the air from below and keep the embouchure firm. Warm the instrument first."}},
	{CauseCentre, "", 1, Tip{"sharp", "Sharp: relax the jaw and use warmer air. If it stays sharp, pull out a little."}},

	{CauseSteadiness, "", 0, Tip{"waver", "Blow a long straight line: one speed of air from the first beat to the last. Watch the ribbon lie flat."}},
	{CauseHeld, "", 0, Tip{"held", "Breathe in for two full beats and start a little softer. One beat more than yesterday is progress."}},
}

// Clean takes are told what to enjoy.
var clean = []Tip{
	{"clean-listen", "Clean. Listen back once and remember how it felt."},
	{"clean-soft", "Clean. Try it again a little softer, just as steady."},
}

// AskDirector closes the list when every tip has been given twice running.
var AskDirector = Tip{"ask-director", "You have worked at this one. Ask your director to hear it with you."}

// TimesRunning is how often the same tip may be given in a row.
const TimesRunning = 2

// choose picks the tip for the first cause that has one not just given twice.
func choose(causes []Cause, deciding *Measure, c Case) Tip {
	if len(causes) == 0 {
		return clean[len(c.RecentTips)%len(clean)]
	}
	// The deciding measure's cause speaks first.
	if deciding != nil {
		causes = append([]Cause{deciding.Cause}, slices.DeleteFunc(slices.Clone(causes), func(x Cause) bool { return x == deciding.Cause })...)
	}
	for _, cause := range causes {
		direction := 0
		if deciding != nil && deciding.Cause == cause {
			direction = directionOf(*deciding, c)
		}
		for _, a := range table {
			if a.cause == cause && a.answers(c.Instrument.Family, direction) && !givenTwice(a.tip.Key, c.RecentTips) {
				return a.tip
			}
		}
	}
	return AskDirector
}

func (a advice) answers(f instrument.Family, direction int) bool {
	return (a.family == "" || a.family == f) && (a.direction == 0 || a.direction == direction)
}

// directionOf is the sign of the error; for a break, of the jump.
func directionOf(m Measure, c Case) int {
	value := m.Value
	if m.Cause == CauseBreak {
		for _, e := range eventsOf(c.Analysis, m.Note) {
			if float64(e.Duration) == m.Value {
				value = float64(e.Interval)
			}
		}
	}
	switch {
	case value < 0:
		return -1
	case value > 0:
		return 1
	}
	return 0
}

func givenTwice(key string, recent []string) bool {
	if len(recent) < TimesRunning {
		return false
	}
	for _, k := range recent[:TimesRunning] {
		if k != key {
			return false
		}
	}
	return true
}
