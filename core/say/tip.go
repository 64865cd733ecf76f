package say

import (
	"cmp"
	"slices"
	"strings"

	"earlychorus/core/exercise"
	"earlychorus/core/measure"
	"earlychorus/core/verdict"
)

// ownTips are those that answer no fault.
var ownTips = map[string]string{
	verdict.AskDirector: "You have worked at this one. Ask your director to hear it with you.",
	"clean-listen":      "Listen back once and remember how it felt.",
	"clean-soft":        "Try it again a little softer, just as steady.",
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
	words, ok := pictures[t.Air]
	if !ok {
		words = pictures["speed"]
	}
	for name, said := range words {
		text = strings.ReplaceAll(text, "{"+name+"}", said)
	}
	return text
}

// pictures are the schools of words for air: what a tip's braces become.
var pictures = map[exercise.AirPicture]map[string]string{
	"speed":  {"faster": "faster air", "slower": "slower air", "even": "air at one speed"},
	"warmth": {"faster": "cool air, sent far", "slower": "warm air, close by", "even": "air at one warmth"},
	"width": {
		"faster": "a narrower stream of air",
		"slower": "a wider stream of air",
		"even":   "a stream of one width",
	},
	"vowels": {
		"faster": "an \"ee\" inside the mouth",
		"slower": "an \"oh\" inside the mouth",
		"even":   "one vowel from start to end",
	},
}
