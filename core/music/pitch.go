// Package music holds the quantities of the trade: frequency, cents, note
// numbers, spelling, keys, beats and tempo. It imports nothing of ours.
package music

import "math"

// Hertz is a frequency in cycles a second.
type Hertz float64

// Cents is a signed pitch distance in hundredths of an equal-tempered
// semitone: 100 is a semitone up, -1200 an octave down.
type Cents float64

// MIDI is a note number: 60 is middle C, 69 the A above it. Fractions are
// never used; a measured pitch is a MIDI number and Cents from it.
type MIDI int

// Seconds is a length of time or a moment counted from a take's first sample.
type Seconds float64

// Decibels is a level. Unless a name says otherwise it is dB below full scale
// (0 is a full-scale square wave), so nearly always negative.
type Decibels float64

// StandardA4 is the tuning reference used when a class sets no other
// (ISO 16:1975).
const StandardA4 Hertz = 440

// LowestA4 and HighestA4 bound the tuning references a class may choose.
const (
	LowestA4  Hertz = 430
	HighestA4 Hertz = 450
)

// Frequency returns the equal-tempered frequency of m when A4 sounds at a4:
// a4 · 2^((m−69)/12).
func (m MIDI) Frequency(a4 Hertz) Hertz {
	return a4 * Hertz(math.Exp2(float64(m-69)/12))
}

// Above returns the pitch that lies c above from: from · 2^(c/1200).
func (c Cents) Above(from Hertz) Hertz {
	return from * Hertz(math.Exp2(float64(c)/1200))
}

// Between returns how far to lies above from: 1200·log₂(to/from). It is NaN
// unless both frequencies are positive.
func Between(from, to Hertz) Cents {
	if from <= 0 || to <= 0 {
		return Cents(math.NaN())
	}
	return Cents(1200 * math.Log2(float64(to/from)))
}

// Span tells whether two pitches lie within so many cents of each other by their ratio: a
// division, where Between takes a logarithm.
type Span struct{ least, most float64 }

// Within is a span of so many cents up or down; c is positive.
func Within(c Cents) Span {
	most := math.Exp2(float64(c) / 1200)
	return Span{1 / most, most}
}

// Holds reports whether to lies within the span around from. Both are positive.
func (s Span) Holds(from, to Hertz) bool {
	ratio := float64(to / from)
	return ratio >= s.least && ratio <= s.most
}

// Nearest returns the note nearest to f and how far f lies above it
// (-50 to 50 cents). f and a4 must be positive.
func Nearest(f, a4 Hertz) (MIDI, Cents) {
	exact := 69 + float64(Between(a4, f))/100
	note := math.Round(exact)
	return MIDI(note), Cents(100 * (exact - note))
}
