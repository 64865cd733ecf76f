// Package audio is sound in memory: one channel of samples and its rate. Its
// folders read and write files.
package audio

import "math"

// Mono is one channel of sound.
type Mono struct {
	Rate    int       // samples a second
	Samples []float64 // full scale is ±1
	Bits    int       // resolution of the source in bits; 0 when it was never a file
}

// Seconds returns how long the sound lasts.
func (m Mono) Seconds() float64 {
	if m.Rate <= 0 {
		return 0
	}
	return float64(len(m.Samples)) / float64(m.Rate)
}

// LowestRate and HighestRate bound the rates the ear listens at: below, the
// harmonics that tell notes apart are gone; above, nothing is gained.
const (
	LowestRate  = 16000
	HighestRate = 96000
)

// Quantise returns x (full scale ±1) as a signed integer of the given number
// of bits, clipped to what they hold.
func Quantise(x float64, bits int) int32 {
	full := float64(int64(1) << (bits - 1))
	return int32(max(-full, min(full-1, math.Round(x*full))))
}
