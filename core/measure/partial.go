package measure

import "earlychorus/core/instrument"

// The causes of another partial or register of the fingering that was asked.
const (
	CauseRegisterLow  Cause = "register-low"  // the upper register stays down
	CauseRegisterHigh Cause = "register-high" // a low note flies up
	CausePartial      Cause = "partial"       // brass on a neighbouring partial
	CauseSlurStays    Cause = "slur-stays"    // a brass slur that stays on its partial
)

// staysLow is an upper note that sounds in the register below, and what helps.
var staysLow = Fault{
	Cause: CauseRegisterLow,
	Rank:  whichNote + 0,
	Tips: []Advice{
		{
			Key:  "clarinet-low",
			When: When{Family: instrument.Clarinets},
			Text: "Roll the thumb so that the register key opens and the hole stays shut. Same mouth, {faster}.",
		},
		{
			Key:  "clarinet-hear",
			When: When{Family: instrument.Clarinets},
			Text: "Hear the high note in your head. Then add the register key and keep blowing.",
		},
		{
			Key:  "sax-low",
			When: When{Family: instrument.Saxophones},
			Text: "Hear the high note first. Press the octave key. Keep the mouth as it is.",
		},
		{
			Key:  "flute-low",
			When: When{Family: instrument.Flutes},
			Text: "Make the lips' hole small. Aim across it, with {faster}.",
		},
		{
			Key:  "oboe-low",
			When: When{Only: []string{"oboe"}},
			Text: "Check the half hole or the octave key. Make the corners firm.",
		},
		{
			Key:  "bassoon-low",
			When: When{Only: []string{"bassoon"}},
			Text: "Check the half hole or the flick key, and firm the corners a little.",
		},
		{
			Key:  "recorder-low",
			When: When{Family: instrument.Recorders},
			Text: "Open the thumb hole only a crack, by bending the thumb.",
		},
		{Key: "register-low", Text: "Hear the high note first. Play the low one. Change with {faster}."},
	},
}

// fliesUp is a low note that jumps to the register above, and what helps.
var fliesUp = Fault{
	Cause: CauseRegisterHigh,
	Rank:  whichNote + 1,
	Tips: []Advice{
		{
			Key:  "clarinet-high",
			When: When{Family: instrument.Clarinets},
			Text: "Keep the thumb off the register key. Does every finger seal its hole?",
		},
		{
			Key:  "sax-high",
			When: When{Family: instrument.Saxophones},
			Text: "Jaw down, a deeper breath and {slower}. Tongue the low note with a little more reed in the mouth.",
		},
		{
			Key:  "sax-octave",
			When: When{Family: instrument.Saxophones},
			Text: "Is the octave key up? Are all holes covered? Open your throat and start again.",
		},
		{
			Key:  "flute-high",
			When: When{Family: instrument.Flutes},
			Text: "Open the lips a little more. Aim lower, with {slower}.",
		},
		{
			Key:  "bassoon-fly",
			When: When{Only: []string{"bassoon"}},
			Text: "Less air: jaw down, relax, use {slower}, and check that the holes are covered.",
		},
		{
			Key:  "reed-high",
			When: When{Family: instrument.DoubleReeds},
			Text: "Drop the jaw, with {slower}. Are all the holes shut?",
		},
		{
			Key:  "recorder-high",
			When: When{Family: instrument.Recorders},
			Text: "Blow gently and cover the thumb hole fully.",
		},
		{Key: "register-high", Text: "Jaw down, and use {slower} from the start."},
	},
}

// wrongPartial is a brass note on a neighbouring partial, and what helps.
var wrongPartial = Fault{
	Cause: CausePartial,
	Rank:  whichNote + 2,
	Tips: []Advice{
		{
			Key:  "brass-too-high",
			When: When{Direction: High},
			Text: "Stop, relax, drop the jaw a little and use {slower}. Hear the note, then play it.",
		},
		{
			Key:  "brass-too-low",
			When: When{Direction: Low},
			Text: "Firm the corners of your mouth and use {faster}. Hear the note, then play it.",
		},
		{Key: "brass-hear", Text: "Sing the note, buzz it on the mouthpiece, then play it."},
	},
}

// slurStays is a brass slur that stays on its partial, and what helps.
var slurStays = Fault{
	Cause: CauseSlurStays,
	Rank:  whichNote + 3,
	Tips: []Advice{
		{
			Key:  "slur-up",
			When: When{Direction: Low},
			Text: "Move with the air, not the tongue: say \"ah-ee\" and hear the high note before you go.",
		},
		{
			Key:  "slur-down",
			When: When{Direction: High},
			Text: "Let the air slow down and say \"ee-ah\": the lips follow, the tongue stays out of it.",
		},
		{Key: "slur-hear", Text: "Sing the two notes, then slur them softly."},
	},
}
