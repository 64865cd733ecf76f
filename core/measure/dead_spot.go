package measure

import (
	"earlychorus/core/ear"
)

// DeadSpot is the longest silence in a slide.
var DeadSpot = Measure{
	Key:     "dead-spot",
	Unit:    "s",
	Meaning: "a slide is never silent this long",
	Take:    deadSpot,
	Fault:   &brokenSlide,
}

// CauseSlide names a slide that stops or stops short.
const CauseSlide Cause = "slide"

// brokenSlide is a slide that stops or stops short, and what helps.
var brokenSlide = Fault{
	Cause: CauseSlide,
	Rank:  whetherItSounds + 4,
	Tips: []Advice{
		{
			Key:  "slide",
			Text: "Slide more slowly and keep the air going through the place where it stops. Sing the slide first.",
		},
	},
}

func deadSpot(c Case, limit float64) []Reading {
	return slides(c, func(s ear.Slide) Reading {
		return Reading{
			Value:  float64(s.DeadSpot),
			Limit:  limit,
			Excess: max(perfect, float64(s.DeadSpot)/limit),
			Way:    1,
		}
	})
}
