package measure

import (
	"fmt"
	"math"
)

// PitchShift is how far the pitch goes with the loudness.
var PitchShift = Measure{
	Key:     "pitch-shift",
	Unit:    "cents",
	Meaning: "the pitch goes with the loudness by at most this",
	Take:    pitchShift,
	Fault:   &pitchWithLoudness,
}

// CausePitchShift names pitch that goes with the loudness.
const CausePitchShift Cause = "pitch-shift"

// pitchWithLoudness is pitch that goes with the loudness, and what helps.
var pitchWithLoudness = Fault{
	Cause: CausePitchShift,
	Rank:  howLoud + 3,
	Tips: []Advice{
		{
			Key:  "loud-sharp",
			When: When{Direction: High},
			Text: "It climbs when loud. Drop the jaw a little as you grow, and open the throat.",
		},
		{Key: "loud-flat", When: When{Direction: Low}, Text: "It falls when loud. Keep the corners firm as you grow."},
		{Key: "pitch-shift", Text: "Grow with the air alone, and watch the ribbon stay level."},
	},
}

func pitchShift(c Case, limit float64) []Reading {
	n, _, ok := swellOf(c)
	if !ok {
		return nil
	}
	shift := n[2].Centre - (n[0].Centre+n[4].Centre)/2
	text := "stays where it is"
	if math.Abs(float64(shift)) >= 1 {
		goes := "falls"
		if shift > 0 {
			goes = "rises"
		}
		text = fmt.Sprintf("%s %.0f cents when loud", goes, math.Abs(float64(shift)))
	}
	return whole(Reading{
		Label:     "Pitch with loudness",
		Value:     float64(shift),
		Limit:     limit,
		Text:      text,
		Wanted:    fmt.Sprintf("within %.0f cents", limit),
		Trust:     n[2].Distrust.Pitch,
		Direction: sign(float64(shift)),
	})
}
