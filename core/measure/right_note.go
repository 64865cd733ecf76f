package measure

import (
	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// RightNote is whether the note that sounds is the one asked for.
var RightNote = Measure{
	Key:     "right-note",
	Meaning: "it is the note asked for; in the first weeks, no other partial is nearer",
	Take:    rightNote,
	Fault:   &wrongNote,
	Also:    []*Fault{&staysLow, &fliesUp, &wrongPartial, &slurStays, &wrongFingering, &heldOver},
}

// CauseWrongNote names another note than the one asked for, beyond what one finger
// or the air would make of it.
const CauseWrongNote Cause = "wrong-note"

// wrongNote is another note than the one asked for, and what helps.
var wrongNote = Fault{
	Cause: CauseWrongNote,
	Rank:  whichNote + 6,
	Tips: []Advice{
		{Key: "wrong-note", Text: "Look at the fingering, hear the note once, sing it, then play it."},
	},
}

// rightNote asks for the note on the instrument; lips and voice that only prepare
// it are not asked.
func rightNote(c Case, _ float64) (out []Reading) {
	prepares := len(c.played(scores.Play)) > 0
	for n, t := range c.Score.Targets() {
		a := c.account(n)
		if t.Phase == scores.Sing || t.Phase == scores.Buzz && prepares {
			continue
		}
		if !c.Analysis.Notes[n].Played && a.Kind != explain.HeldOver {
			continue
		}
		m := Reading{
			Note:   n,
			Excess: perfect,
		}
		if c.wrong(n) {
			m.Value, m.Came = float64(a.Came-t.Target), a.Came
			m.Excess, m.Way = hopeless, sign(m.Value)
			m.Cause = c.causeOf(a, t, m.Way)
			m.Account = a.Kind
		}
		out = append(out, m)
	}
	return out
}

// causeOf names why another note came than the one asked for.
func (c Case) causeOf(a explain.Account, t scores.Segment, direction int) Cause {
	brass := c.Instrument.Family == instrument.Brass
	switch {
	case a.Partial > 0 && brass && a.Kind == explain.HeldOver && t.Articulation == scores.Slurred:
		return CauseSlurStays
	case a.Partial > 0 && brass:
		return CausePartial
	case a.Partial > 0 && direction < 0:
		return CauseRegisterLow
	case a.Partial > 0:
		return CauseRegisterHigh
	case a.Kind == explain.HeldOver:
		return CauseHeldOver
	case a.Kind == explain.OtherFingering:
		return CauseFingering
	}
	return CauseWrongNote
}
