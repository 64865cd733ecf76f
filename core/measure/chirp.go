package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/instrument"
)

// NoChirp is that no squeak sounds in a note or between two.
var NoChirp = Measure{
	Key:     "chirp",
	Meaning: "no squeak sounds",
	Take:    noChirp,
	Fault:   &squeaks,
}

// CauseChirp names squeaks.
const CauseChirp Cause = "chirp"

// squeaks are chirps from holes that are not sealed, and what helps.
var squeaks = Fault{
	Cause: CauseChirp,
	Rank:  whichNote + 9,
	Tips: []Advice{
		{
			Key:  "chirp-holes",
			When: When{Family: instrument.Clarinets},
			Text: "A hole is not sealed. Press with flat pads of the fingers: check the thumb and the ring fingers.",
		},
		{
			Key:  "chirp-keys",
			When: When{Family: instrument.Saxophones},
			Text: "A key is brushed or not down. Keep the palms clear and the fingers on their pearls.",
		},
		{Key: "chirp", Text: "Check that every finger seals, and keep the mouth still."},
	},
}

func noChirp(c Case, _ float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		count := 0
		for _, e := range eventsOf(c.Analysis, p.n) {
			if e.Kind == ear.Chirp {
				count++
			}
		}
		m := Reading{
			Value:  float64(count),
			Excess: countOf(count),
		}
		return m
	})
}
