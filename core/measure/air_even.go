package measure

import (
	"earlychorus/core/ear"
)

// AirEven is how alike the bursts are.
var AirEven = Measure{
	Key:     "air-even",
	Unit:    "share",
	Meaning: "the bursts' energies spread by at most this",
	Take:    airEven,
	Fault:   &unevenBursts,
}

// CauseAirEven names bursts of different strength.
const CauseAirEven Cause = "air-even"

// unevenBursts is bursts of different strength, and what helps.
var unevenBursts = Fault{
	Cause: CauseAirEven,
	Rank:  airAlone + 1,
	Tips: []Advice{
		{Key: "air-even", Text: "Make the last burst as strong as the first: start with a little less."},
	},
}

func airEven(c Case, limit float64) []Reading {
	return worst(airs(c, func(a ear.Air) Reading {
		return Reading{
			Value:  a.Unequal,
			Limit:  limit,
			Excess: max(perfect, a.Unequal/limit),
			Way:    1,
		}
	}))
}
