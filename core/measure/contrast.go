package measure

import (
	"earlychorus/core/dsp"
	"earlychorus/core/scores"
)

// Contrast is how far the notes asked loud lie above those asked soft.
var Contrast = Measure{
	Key:     "contrast",
	Unit:    "dB",
	Meaning: "notes asked loud lie at least this far above those asked soft",
	Take:    contrast,
	Fault:   &sameLoudness,
}

// CauseDynamics names loudness that is not what was asked.
const CauseDynamics Cause = "dynamics"

// sameLoudness is soft as loud as loud, and what helps.
var sameLoudness = Fault{
	Cause: CauseDynamics,
	Rank:  howLoud + 2,
	Tips: []Advice{
		{Key: "dynamics", Text: "Make soft much softer: begin with almost nothing, and make loud twice as big."},
	},
}

func contrast(c Case, limit float64) []Reading {
	var soft, loud []float64
	var doubt contrastDoubt
	for _, p := range c.played(scores.Play) {
		if p.target.Dynamic == "" || p.target.DynamicTo != "" {
			continue
		}
		doubt.add(p.note, p.target.Dynamic.Step() > 0)
		if p.target.Dynamic.Step() < 0 {
			soft = append(soft, float64(p.note.Level))
		} else if p.target.Dynamic.Step() > 0 {
			loud = append(loud, float64(p.note.Level))
		}
	}
	if len(soft) == 0 || len(loud) == 0 {
		return nil
	}
	db := dsp.Median(loud) - dsp.Median(soft)
	m := Reading{
		Value:  db,
		Limit:  limit,
		Excess: atLeast(db, limit),
		Way:    Low,
	}
	m.Trust = doubt.of(m)
	return whole(m)
}
