package say

import (
	"cmp"
	"slices"
	"strings"

	"earlychorus/core/measure"
	"earlychorus/core/verdict"
)

// ownTips are those that answer no fault.
var ownTips = map[string]string{
	verdict.AskDirector: "You have worked at this one. Ask your director to hear it with you.",
	"clean-listen":      "Listen back once and remember how it felt.",
	"clean-soft":        "Try it once more, softer and just as still.",
}

// Tip says the tip of a verdict.
func (t Teller) Tip(v verdict.Verdict) Tip {
	if v.OldTip != nil {
		return Tip(*v.OldTip)
	}
	if text, own := ownTips[v.TipKey]; own {
		return Tip{v.TipKey, text}
	}
	all := t.Tips.Advices()
	n := slices.IndexFunc(all, func(a measure.Advice) bool { return a.Key == v.TipKey })
	if n < 0 {
		return Tip{Key: v.TipKey}
	}
	return Tip{v.TipKey, t.advice(all[n].Text, v.Deciding)}
}

// Advice says a tip of the book where no take is spoken of.
func (t Teller) Advice(a measure.Advice) Tip { return Tip{a.Key, t.advice(a.Text, nil)} }

// lookAtTheCard is said where the tables do not tell which finger differs.
const lookAtTheCard = "Look at the fingering on the card"

// advice says a tip in the class's picture for air, and with the fingers to move.
func (t Teller) advice(text string, deciding *measure.Reading) string {
	mend := ""
	if deciding != nil && deciding.Came > 0 {
		mend = t.Instrument.Mend(deciding.Target, deciding.Came, t.Hands)
	}
	text = strings.ReplaceAll(text, "{mend}", cmp.Or(mend, lookAtTheCard))
	return t.Air.Say(text)
}
