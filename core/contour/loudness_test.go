package contour_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/contour"
)

// ITU-R BS.1770-4, annex 1, tables 1 and 2: the coefficients at 48 kHz (from
// memory).
func TestWeightingAgreesWithTheStandard(t *testing.T) {
	shelf := contour.Shelf(48000)
	for _, c := range [][2]float64{
		{1.53512485958697, shelf.B0},
		{-2.69169618940638, shelf.B1},
		{1.19839281085285, shelf.B2},
		{-1.69065929318241, shelf.A1},
		{0.73248077421585, shelf.A2},
	} {
		assert.InDelta(t, c[0], c[1], 1e-8)
	}
	pass := contour.HighPass(48000)
	assert.InDelta(t, -1.99004745483398, pass.A1, 1e-8)
	assert.InDelta(t, 0.99007225036621, pass.A2, 1e-8)
}

// The same standard: a full-scale tone of 997 Hz in one channel reads -3.01.
func TestLoudnessOfTheStandardsTone(t *testing.T) {
	for _, rate := range []int{16000, 44100, 48000, 96000} {
		tone := sine(997, 2, rate)
		for n := range tone.Samples {
			tone.Samples[n] /= 0.3
		}
		assert.InDelta(t, -3.01, float64(contour.NewLoudness(tone).Between(0.5, 1.5)), 0.05, "%d Hz", rate)
	}
	require.Equal(
		t,
		contour.Silence,
		contour.NewLoudness(sine(440, 0.2, 48000)).Between(0, 0.2),
		"shorter than its window",
	)
}
