package measure

import (
	"fmt"

	"earlychorus/core/scores"
)

// Sung is where the sung note lies, in any octave.
var Sung = Measure{
	Key:     "sung",
	Unit:    "cents",
	Meaning: "the sung note lies this near, in any octave",
	Take:    sung,
	Fault:   &notSung,
}

// CauseSung names a sung note that is beside the pitch, or missing.
const CauseSung Cause = "sung"

// notSung is a sung note that is beside the pitch, or missing, and what helps.
var notSung = Fault{
	Cause: CauseSung,
	Rank:  whetherItSounds + 5,
	Tips: []Advice{
		{
			Key:  "not-sung",
			When: When{Direction: Low},
			Text: "Hear the note twice, hum it, then sing it out. Any octave will do.",
		},
		{Key: "sung", Text: "Listen again and slide your voice until it melts into the note, then sing it straight."},
	},
}

func sung(c Case, limit float64) (out []Reading) {
	for n, t := range c.Score.Targets() {
		if t.Phase != scores.Sing {
			continue
		}
		note := c.Analysis.Notes[n]
		m := Reading{
			Label:     "Sung",
			Note:      n,
			Value:     float64(note.Centre),
			Limit:     limit,
			Text:      "sung " + FlatOrSharp(note.Centre),
			Wanted:    fmt.Sprintf("within ±%.0f cents, in any octave", limit),
			Trust:     note.Distrust.Pitch,
			Direction: sign(float64(note.Centre)),
		}
		if !note.Played {
			m.Text, m.Excess, m.Direction, m.Trust = "not sung", hopeless, -1, ""
		}
		out = append(out, m)
	}
	return out
}
