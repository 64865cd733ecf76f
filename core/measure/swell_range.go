package measure

import "fmt"

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
	n, distrust, ok := swellOf(c)
	if !ok {
		return nil
	}
	db := float64(n[2].Level - (n[0].Level+n[4].Level)/2)
	return whole(Reading{
		Label:     "Soft to loud",
		Value:     db,
		Limit:     limit,
		Text:      fmt.Sprintf("%.0f dB", db),
		Wanted:    fmt.Sprintf("at least %.0f dB", limit),
		Excess:    atLeast(db, limit),
		Trust:     distrust,
		Direction: -1,
	})
}
