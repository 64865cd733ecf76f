package measure

import (
	"earlychorus/core/ear"
)

// Travel is how much of its way a slide goes.
var Travel = Measure{
	Key:     "travel",
	Unit:    "share",
	Meaning: "a slide goes at least this much of its way",
	Take:    travel,
	Fault:   &brokenSlide,
}

func travel(c Case, limit float64) []Reading {
	return slides(c, func(s ear.Slide) Reading {
		return Reading{
			Value:  s.Travel,
			Limit:  limit,
			Excess: atLeast(s.Travel, limit),
			Way:    -1,
		}
	})
}
