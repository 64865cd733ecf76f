package measure

import (
	"earlychorus/core/meter"
)

// MeterSteady is how still it then stands.
var MeterSteady = Measure{
	Key:     "meter-steady",
	Unit:    "share",
	Meaning: "and then stands still to this share of its height",
	Take:    meterSteady,
	Fault:   &ballDances,
}

// CauseMeterSteady names a ball that does not stand still.
const CauseMeterSteady Cause = "meter-steady"

// ballDances is a ball that does not stand still, and what helps.
var ballDances = Fault{
	Cause: CauseMeterSteady,
	Rank:  airAlone + 4,
	Tips: []Advice{
		{Key: "meter-steady", Text: "The ball dances. Blow a little less, with {even}, until it stands still."},
	},
}

func meterSteady(c Case, limit float64) []Reading {
	return worst(blows(c, func(b meter.Blow) Reading {
		return Reading{
			Value:  b.Unsteady,
			Limit:  limit,
			Excess: max(perfect, b.Unsteady/limit),
			Way:    1,
		}
	}))
}
