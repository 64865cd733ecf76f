package measure

import (
	"fmt"

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
			Label:     "Slides",
			Value:     s.Travel,
			Limit:     limit,
			Text:      fmt.Sprintf("%.0f %% of the way", 100*s.Travel),
			Wanted:    fmt.Sprintf("at least %.0f %%", 100*limit),
			Excess:    atLeast(s.Travel, limit),
			Direction: -1,
		}
	})
}
