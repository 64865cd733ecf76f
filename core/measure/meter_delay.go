package measure

import (
	"earlychorus/core/meter"
)

// MeterDelay is how soon the ball of an air meter is up.
var MeterDelay = Measure{
	Key:     "meter-delay",
	Unit:    "s",
	Meaning: "the ball is up this long after the breath begins",
	Take:    meterDelay,
	Fault:   &ballLate,
}

// CauseMeterDelay names a ball that comes up late.
const CauseMeterDelay Cause = "meter-delay"

// ballLate is a ball that comes up late, and what helps.
var ballLate = Fault{
	Cause: CauseMeterDelay,
	Rank:  airAlone + 3,
	Tips: []Advice{
		{
			Key:  "meter-delay",
			Text: "The ball comes up late. Turn the breath round without a stop: in, and out at once.",
		},
	},
}

func meterDelay(c Case, limit float64) []Reading {
	return worst(blows(c, func(b meter.Blow) Reading {
		return Reading{
			Value:  float64(b.Delay),
			Limit:  limit,
			Excess: max(perfect, float64(b.Delay)/limit),
			Way:    1,
		}
	}))
}
