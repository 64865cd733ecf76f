package measure

import (
	"earlychorus/core/ear"
)

// AirBursts is how many bursts the air comes in.
var AirBursts = Measure{
	Key:     "air-bursts",
	Meaning: "as many bursts as asked for; a stream without a stop",
	Take:    airBursts,
	Fault:   &wrongBursts,
}

// CauseBursts names more or fewer bursts than asked for.
const CauseBursts Cause = "bursts"

// wrongBursts is more or fewer bursts than asked for, and what helps.
var wrongBursts = Fault{
	Cause: CauseBursts,
	Rank:  airAlone + 0,
	Tips: []Advice{
		{
			Key:  "bursts-few",
			When: When{Direction: Low},
			Text: "Count the bursts on your fingers, and save air for the last ones.",
		},
		{
			Key:  "bursts-many",
			When: When{Direction: High},
			Text: "Blow in one line, without a stop: keep the throat open.",
		},
		{Key: "bursts", Text: "Hold a hand before your mouth and count what you feel."},
	},
}

func airBursts(c Case, _ float64) []Reading {
	return worst(airs(c, func(a ear.Air) Reading {
		m := Reading{Value: float64(a.Bursts), Of: float64(a.Wanted)}
		off := a.Bursts - max(1, a.Wanted)
		m.Excess, m.Way = countOf(max(off, -off)), sign(float64(off))
		if !a.Heard {
			m.Absent, m.Excess, m.Way = true, hopeless, Low
		}
		return m
	}))
}
