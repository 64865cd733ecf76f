package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// NoGap is the longest silence inside a note.
var NoGap = Measure{
	Key:     "gap",
	Unit:    "s",
	Meaning: "no silence inside a note this long",
	Take:    noGap,
	Fault:   &stops,
}

// CauseGap names a sound that stops.
const CauseGap Cause = "gap"

// stops is a sound that stops, and what helps.
var stops = Fault{
	Cause: CauseGap,
	Rank:  whetherItSounds + 3,
	Tips: []Advice{
		{
			Key:  "buzz-gap",
			When: When{Chapter: scores.Buzzing},
			Text: "The buzz stopped. Blow air through the lips first, then bring them together without stopping the " +
				"air.",
		},
		{
			Key:  "brass-gap",
			When: When{Family: instrument.Brass},
			Text: "The buzz stopped. Keep the lips together and blow right through the note.",
		},
		{Key: "gap", Text: "The air stopped. Take a low, full breath and spread it over all the beats."},
	},
}

func noGap(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		r := longest(c, p, limit, ear.Gap)
		if r.Value > 0 && r.Value < bareGap && c.isBareInHall(p.note) {
			return Reading{Limit: limit, Excess: touched(0, limit)}
		}
		if pulse := p.note.Pulse; pulse != nil && c.Analysis.Recording.Ring > hidesTongue &&
			r.Value*pulse.Asked < troughShare {
			return Reading{Limit: limit, Excess: touched(0, limit)}
		}
		return r
	})
}

// A very soft pure tone is one harmonic out of the room's noise, which a hall's echoes cancel for
// so long, in seconds: nothing else of it says that the player stopped (own lessons).
const (
	bareGap   = 0.3
	bareAbove = 25. // dB over the noise, of a tone that soft
)

// isBareInHall reports whether a note is such a tone, in a room that rings.
func (c Case) isBareInHall(n ear.Note) bool {
	pure := c.Instrument.Family == instrument.Flutes || c.Instrument.Family == instrument.Recorders
	return pure && c.Analysis.Recording.Ring > hidesTongue &&
		float64(n.Level-c.Analysis.Recording.NoiseFloor) < bareAbove
}

// troughShare is how much of a push of the air may be lost between two in a room that rings:
// its echoes cancel what is soft there.
const troughShare = 0.6
