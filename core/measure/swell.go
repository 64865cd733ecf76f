package measure

import "earlychorus/core/ear"

// swellOf returns a swell's notes; ok is false when one did not sound or its
// loudness cannot be relied on, which is then told by other measures.
func swellOf(c Case) (notes []ear.Note, distrust ear.Doubt, ok bool) {
	if len(c.Analysis.Notes) != stretches {
		return nil, "", false
	}
	for _, n := range c.Analysis.Notes {
		if !n.Played {
			return nil, "", false
		}
		distrust = n.Distrust.Level
	}
	return c.Analysis.Notes, distrust, true
}

// stretches are a swell's five: very soft, growing, very loud, fading, very soft.
const stretches = 5
