package measure

import (
	"math"

	"earlychorus/core/ear"
)

// AirLength is how long the air lasts.
var AirLength = Measure{
	Key:     "air-length",
	Unit:    "beats",
	Meaning: "the air lasts as long as asked for, give or take this",
	Take:    airLength,
	Fault:   &airOffLength,
}

// CauseAirLength names air that ends too soon or too late.
const CauseAirLength Cause = "air-length"

// airOffLength is air that ends too soon or too late, and what helps.
var airOffLength = Fault{
	Cause: CauseAirLength,
	Rank:  airAlone + 2,
	Tips: []Advice{
		{
			Key:  "air-short",
			When: When{Direction: Low},
			Text: "The air ran out. Start smaller and spread it over all the beats.",
		},
		{Key: "air-long", When: When{Direction: High}, Text: "Stop on the count and wait, throat open."},
		{Key: "air-length", Text: "Count aloud once through, then breathe to the same count."},
	},
}

func airLength(c Case, limit float64) []Reading {
	return worst(airs(c, func(a ear.Air) Reading {
		got, want := c.Score.TempoBPM.Beats(a.Length), c.Score.TempoBPM.Beats(a.Asked)
		if a.Wanted > 0 {
			want -= shortOfBeat // a burst need not fill its beat
		}
		off := math.Max(0, math.Abs(float64(got-want))-burstSlack(a))
		return Reading{
			Value:  float64(got),
			Of:     float64(c.Score.TempoBPM.Beats(a.Asked)),
			Limit:  limit,
			Excess: max(perfect, off/limit),
			Way:    sign(float64(got - want)),
		}
	}))
}
