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
		if distrust == "" {
			distrust = n.Distrust.Level
		}
	}
	if loud := c.Analysis.Notes[stretches/2].Distrust.Level; loud != "" {
		distrust = loud
	}
	return c.Analysis.Notes, distrust, true
}

// contrastTrust is why a contrast cannot be relied on. Another player beside the soft notes
// makes them no softer: the contrast that is heard for all that is there.
func contrastTrust(distrust ear.Doubt, m Reading) ear.Doubt {
	if distrust == ear.WithAnother && m.Excess <= 1 {
		return ""
	}
	return distrust
}

// stretches are a swell's five: very soft, growing, very loud, fading, very soft.
const stretches = 5
