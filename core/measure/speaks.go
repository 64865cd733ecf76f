package measure

import (
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Speaks is whether every note sounds at all.
var Speaks = Measure{
	Key:     "speaks",
	Meaning: "every note sounds",
	Take:    speaks,
	Fault:   &noResponse,
}

// CauseNoResponse names a note that does not sound at all.
const CauseNoResponse Cause = "no-response"

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
			Text: "Wet the reed, sound it alone for a moment, then put it back and try again.",
		},
		{
			Key:  "single-reed-no-sound",
			When: When{Family: instrument.Clarinets},
			Text: "Check that the reed sits straight, and that the lower lip is firm and flat under it.",
		},
		{
			Key:  "sax-no-sound",
			When: When{Family: instrument.Saxophones},
			Text: "Sound the mouthpiece with the neck first, then the whole instrument; start with the air, not the " +
				"tongue.",
		},
		{Key: "no-sound", Text: "Breathe on the beat before, let the air go first and the tongue only open the door."},
	},
}

func speaks(c Case, _ float64) (out []Reading) {
	for n, t := range c.Score.Targets() {
		m := Reading{
			Label:  "Sound",
			Note:   n,
			Text:   "speaks",
			Wanted: "the note speaks",
			Excess: perfect,
		}
		if !c.Analysis.Notes[n].Played && t.Phase != scores.Sing {
			m.Text, m.Excess, m.Direction = "nothing sounded", hopeless, -1
		}
		out = append(out, m)
	}
	return out
}
