package measure

import (
	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Speaks is whether every note sounds at all.
var Speaks = Measure{
	Key:     "speaks",
	Meaning: "every note sounds",
	Take:    speaks,
	Fault:   &noResponse,
	Also:    []*Fault{&notTongued, &leftOut},
}

// The causes of a note without a sound of its own.
const (
	CauseNoResponse Cause = "no-response" // nothing sounds
	CauseNotTongued Cause = "not-tongued" // the note before goes on at the same pitch
	CauseLeftOut    Cause = "left-out"    // the rest is right
)

// noResponse is a note that does not sound at all, and what helps.
var noResponse = Fault{
	Cause: CauseNoResponse,
	Rank:  whetherItSounds + 0,
	Tips: []Advice{
		{
			Key:  "tuba-low",
			When: When{Only: []string{"tuba"}, Register: LowRegister},
			Text: "Low notes need time. Loosen the lips, drop the jaw and fill the tuba with {slower}.",
		},
		{
			Key:  "brass-no-sound",
			When: When{Family: instrument.Brass},
			Text: "Buzz the note on the mouthpiece for four beats, rest, then play it.",
		},
		{
			Key:  "flute-no-sound",
			When: When{Family: instrument.Flutes},
			Text: "Find the sound on the headjoint first: roll it a little until it speaks.",
		},
		{
			Key:  "reed-no-sound",
			When: When{Family: instrument.DoubleReeds},
			Text: "Wet the reed and sound it alone. Put it back and try again.",
		},
		{
			Key:  "single-reed-no-sound",
			When: When{Family: instrument.Clarinets},
			Text: "Is the reed straight? Keep the lower lip firm and flat under it.",
		},
		{
			Key:  "sax-no-sound",
			When: When{Family: instrument.Saxophones},
			Text: "Sound the mouthpiece with the neck first, then the whole instrument; start with the air, not the " +
				"tongue.",
		},
		{Key: "no-sound", Text: "Breathe one beat before. The air goes first; the tongue just opens the door."},
	},
}

// notTongued is notes that run into one, and what helps.
var notTongued = Fault{
	Cause: CauseNotTongued,
	Rank:  whetherItSounds + 1,
	Tips: []Advice{
		{
			Key:  "not-tongued-reed",
			When: When{Family: instrument.Clarinets},
			Text: "Touch the tip of the reed lightly for each note. The air keeps going.",
		},
		{
			Key:  "not-tongued-sax",
			When: When{Family: instrument.Saxophones},
			Text: "Touch the tip of the reed lightly for each note. The air keeps going.",
		},
		{
			Key:  "not-tongued-double-reed",
			When: When{Family: instrument.DoubleReeds},
			Text: "Touch the tip of the reed lightly for each note. The air keeps going.",
		},
		{Key: "not-tongued", Text: "Say \"too\" for each note. The air keeps going."},
		{Key: "not-tongued-slow", Text: "Say the rhythm on \"too\" first, then play it slowly."},
	},
}

// leftOut is a note that was skipped, and what helps.
var leftOut = Fault{
	Cause: CauseLeftOut,
	Rank:  whetherItSounds + 2,
	Tips: []Advice{
		{Key: "left-out", Text: "Say the notes slowly, finger them without sound, then play."},
		{Key: "left-out-slow", Text: "Play it slower, and read one note ahead."},
	},
}

func speaks(c Case, _ float64) (out []Reading) {
	for n, t := range c.Score.Targets() {
		if c.lineMissing(t.Phase) {
			continue // told of the line as a whole
		}
		m := Reading{
			Note:   n,
			Excess: perfect,
		}
		a := c.account(n)
		if !c.Analysis.Notes[n].Played && t.Phase != scores.Sing && !(a.Kind == explain.HeldOver && c.Asks(RightNote)) {
			m.Absent, m.Excess, m.Way = true, hopeless, Low
			m.Account = a.Kind
			m.Came = a.Came
			m.Cause = causeOfSilence[a.Kind]
		}
		out = append(out, m)
	}
	return out
}

var causeOfSilence = map[explain.Kind]Cause{
	explain.NotTongued: CauseNotTongued,
	explain.HeldOver:   CauseHeldOver,
	explain.LeftOut:    CauseLeftOut,
}
