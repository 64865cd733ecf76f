package dsp_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/dsp"
)

func sine(f float64, n int) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = math.Sin(2 * math.Pi * f * float64(i))
	}
	return x
}

func TestDecimateKeepsTheToneAndItsPlace(t *testing.T) {
	y := dsp.Decimate(sine(0.01, 3000), 3, 0.1)
	want := sine(0.03, 1000)
	for n := 100; n < 900; n++ {
		assert.InDelta(t, want[n], y[n], 1e-3)
	}
}

func TestDecimateRemovesWhatWouldFold(t *testing.T) {
	y := dsp.Decimate(sine(0.3, 3000), 3, 0.1)
	assert.Less(t, dsp.Quantile(y[100:900], 1), 1e-3)
}

// slowNSDF is the definition, written to be read.
func slowNSDF(x []float64, lag int) float64 {
	var r, m float64
	for j := 0; j+lag < len(x); j++ {
		r += x[j] * x[j+lag]
		m += x[j]*x[j] + x[j+lag]*x[j+lag]
	}
	return 2 * r / m
}

func TestNSDFAgreesWithItsDefinition(t *testing.T) {
	chance := rand.New(rand.NewPCG(1, 2))
	x := make([]float64, 333)
	for n := range x {
		x[n] = chance.NormFloat64()
	}
	c := dsp.NewCorrelator(len(x), 200)
	out := make([]float64, 200)
	c.NSDF(x, out)
	for lag, got := range out {
		assert.InDelta(t, slowNSDF(x, lag), got, 1e-9)
	}
}

func TestNSDFOfSilenceIsZero(t *testing.T) {
	out := make([]float64, 10)
	dsp.NewCorrelator(20, 10).NSDF(make([]float64, 20), out)
	assert.Equal(t, make([]float64, 10), out)
}

func TestTheilSenIgnoresWildPoints(t *testing.T) {
	var x, y []float64
	for n := range 1000 {
		x = append(x, float64(n)/100)
		y = append(y, 3*float64(n)/100)
	}
	y[500], y[501] = 1e6, -1e6
	assert.InDelta(t, 3, dsp.TheilSen(x, y), 1e-9)
	assert.Zero(t, dsp.TheilSen(nil, nil))
}

func TestQuantile(t *testing.T) {
	assert.InDelta(t, 2.5, dsp.Median([]float64{4, 1, 2, 3}), 1e-12)
	assert.True(t, math.IsNaN(dsp.Median(nil)))
}
