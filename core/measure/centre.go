package measure

import (
	"math"

	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Centre is where the steady part of a note lies beside its target.
var Centre = Measure{
	Key:     "centre",
	Unit:    "cents",
	Meaning: "the middle of the steady part lies this near, either way; what the tube itself does is allowed for",
	Take:    centre,
	Fault:   &offPitch,
	Informs: true,
}

// CauseCentre names a note beside its pitch.
const CauseCentre Cause = "centre"

// offPitch is a note beside its pitch, and what helps.
var offPitch = Fault{
	Cause: CauseCentre,
	Rank:  wherePitchLies + 1,
	Tips: []Advice{
		{
			Key:  "flute-flat",
			When: When{Family: instrument.Flutes, Direction: Low},
			Text: "Flat: raise the air a little and hold it up from below; check how far you roll in.",
		},
		{
			Key:  "flute-sharp",
			When: When{Family: instrument.Flutes, Direction: High},
			Text: "Sharp: aim the air lower and relax the lips.",
		},
		{
			Key:  "brass-flat",
			When: When{Family: instrument.Brass, Direction: Low},
			Text: "Flat: firm corners and {faster}. Still flat when warm? Push the tuning slide in a little.",
		},
		{
			Key:  "brass-sharp",
			When: When{Family: instrument.Brass, Direction: High},
			Text: "Sharp: relax and let the jaw drop a little. Still sharp when warm? Pull the tuning slide " +
				"out a little.",
		},
		{
			Key:  "recorder-flat",
			When: When{Family: instrument.Recorders, Direction: Low},
			Text: "Flat: a little more air, always even. Warm the head in your hand first.",
		},
		{
			Key:  "recorder-sharp",
			When: When{Family: instrument.Recorders, Direction: High},
			Text: "Sharp: blow more gently, as if warming your hands.",
		},
		{
			Key:  "clarinet-throat",
			When: When{Family: instrument.Clarinets, Register: MidRegister, Direction: High},
			Text: "Sharp in the middle: open the throat, and put some fingers down to shade the note.",
		},
		{
			Key:  "flat",
			When: When{Direction: Low},
			Text: "Flat: hold the air up from below and keep the corners firm. Warm the instrument first.",
		},
		{
			Key:  "sharp",
			When: When{Direction: High},
			Text: "Sharp: relax the jaw and use {slower}. If it stays sharp, pull out a little.",
		},
		{Key: "centre", Text: "Hear the note and sing it. Then play it in the same place."},
	},
}

// centre allows for what the tube itself does before the player is blamed.
func centre(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		limit := easier(c, p, limit, func(l scores.Limits) float64 { return float64(l.Centre) })
		value := float64(p.note.Centre)
		m := Reading{
			Value: value,
			Limit: limit,
			Trust: p.note.Distrust.Pitch,
			Way:   sign(value),
		}
		if own := float64(
			c.Instrument.TendencyOf(p.target.Target, fingered(p.target)),
		); own*value > 0 &&
			math.Abs(own) >= leastAllowance {
			allowed := math.Min(math.Abs(own), limit)
			m.Excess = math.Max(perfect, (math.Abs(value)-allowed)/limit)
			m.Of = math.Copysign(allowed, own) // what the note's own tendency is allowed
		}
		return m
	})
}

// fingered is how a note is to be fingered; "" where nothing is said.
func fingered(target scores.Segment) string {
	if target.Fingering == nil {
		return ""
	}
	return target.Fingering.Text
}

const leastAllowance = 5 // cents: less is nobody's matter
