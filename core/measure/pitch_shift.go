package measure

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
	return whole(Reading{
		Value: float64(shift),
		Limit: limit,
		Trust: n[2].Distrust.Pitch,
		Way:   sign(float64(shift)),
	})
}
