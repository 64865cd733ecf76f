package measure

// Plateaus is whether every degree of a scale is found.
var Plateaus = Measure{
	Key:     "plateaus",
	Meaning: "every degree of a scale is found",
	Take:    plateaus,
	Fault:   &missingDegrees,
}

// CausePlateaus names a degree that is not found.
const CausePlateaus Cause = "plateaus"

// missingDegrees is a degree that is not found, and what helps.
var missingDegrees = Fault{
	Cause: CausePlateaus,
	Rank:  whetherItSounds + 5,
	Tips: []Advice{
		{
			Key: "plateaus",
			Text: "Rest on every degree until the tube holds it. Play the scale on the instrument first, then find " +
				"each note again.",
		},
	},
}

// plateaus counts the degrees of a scale that were not found.
func plateaus(c Case, _ float64) []Reading {
	missing, all := 0, len(c.Score.Targets())
	for n := range all {
		if !c.Analysis.Notes[n].Played || c.wrong(n) {
			missing++
		}
	}
	return whole(Reading{
		Value:  float64(missing),
		Of:     float64(all),
		Excess: countOf(missing),
		Way:    -1,
	})
}
