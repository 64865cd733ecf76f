package measure

// SwellRange is how far loud lies above soft.
var SwellRange = Measure{
	Key:     "swell-range",
	Unit:    "dB",
	Meaning: "loud lies at least this far above soft",
	Take:    swellRange,
	Fault:   &flatSwell,
}

// CauseSwell names loudness that does not go as it should.
const CauseSwell Cause = "swell"

// flatSwell is loudness that does not go as it should, and what helps.
var flatSwell = Fault{
	Cause: CauseSwell,
	Rank:  howLoud + 0,
	Tips: []Advice{
		{Key: "swell", Text: "Make soft softer: begin with almost nothing, and keep the most for the middle."},
	},
}

func swellRange(c Case, limit float64) []Reading {
	n, doubt, ok := swellOf(c)
	if !ok {
		return nil
	}
	db := float64(n[2].Level - (n[0].Level+n[4].Level)/2)
	m := Reading{
		Value:  db,
		Limit:  limit,
		Excess: atLeast(db, limit),
		Way:    -1,
	}
	m.Trust = doubt.of(m)
	return whole(m)
}
