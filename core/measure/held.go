package measure

import (
	"math"

	"earlychorus/core/music"
)

// Held is how much of its beats a note sounds.
var Held = Measure{
	Key:     "held",
	Unit:    "share",
	Meaning: "this share of the beats sounds",
	Take:    held,
	Fault:   &tooShort,
}

// CauseHeld names a note let go of too soon.
const CauseHeld Cause = "held"

// tooShort is a note let go of too soon, and what helps.
var tooShort = Fault{
	Cause: CauseHeld,
	Rank:  howItHolds + 2,
	Tips: []Advice{
		{
			Key:  "held",
			Text: "Breathe in for two full beats and start a little softer. One beat more than yesterday is progress.",
		},
		{Key: "held-spend", Text: "Spend less air at the start: most of it is for the last beats."},
	},
}

func held(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		beats, asked := c.Score.TempoBPM.Beats(p.note.Sounding), float64(p.target.Beats)
		if late := c.Score.TempoBPM.Beats(p.note.Response); late > 0 && c.Asks(Response) {
			asked = math.Max(0.5, asked-float64(late)) // lateness is told by itself
		}
		allowed := math.Max((1-limit)*asked, float64(c.Score.TempoBPM.Beats(startAndEnd)))
		return Reading{
			Value:  float64(beats),
			Of:     float64(p.target.Beats),
			Limit:  asked - allowed,
			Excess: max(perfect, (asked-float64(min(beats, p.target.Beats)))/allowed),
			Way:    -1,
		}
	})
}

// startAndEnd is what the start and the end of any note may take of its beats,
// however short they are.
const startAndEnd music.Seconds = 0.12
