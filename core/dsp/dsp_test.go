package dsp_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/dsp/fourier"
	"gonum.org/v1/gonum/stat"
	"pgregory.net/rapid"

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
	y := dsp.Decimate(sine(0.01, 3000), 3, 0.3)
	want := sine(0.03, 1000)
	for n := 100; n < 900; n++ {
		assert.InDelta(t, want[n], y[n], 1e-3)
	}
}

func TestDecimateRemovesWhatWouldFold(t *testing.T) {
	y := dsp.Decimate(sine(0.3, 3000), 3, 0.3)
	assert.Less(t, dsp.Quantile(y[100:900], 1), 3e-3) // -50 dB
}

// What a wide filter lets fold back lies above what it passes.
func TestAWideStreamFoldsBackAbovePassAlone(t *testing.T) {
	for _, factor := range []int{2, 3, 4, 8} {
		through := func(f float64) []float64 {
			s := dsp.NewStream(factor, 0.42, 0.58)
			return s.Push(sine(f/float64(factor), 1000*factor))
		}
		assert.InDelta(t, 1, dsp.Quantile(through(0.41)[100:900], 1), 4e-3, "factor %d keeps", factor)
		assert.Less(t, dsp.Quantile(through(0.59)[100:900], 1), 4e-3, "factor %d would fold to 0.41", factor)
	}
}

// A sound in blocks is cut down as a whole one is, to the last bit.
func TestStreamAgreesWithDecimate(t *testing.T) {
	x := noise(5, 10_001)
	for _, factor := range []int{1, 2, 3, 4, 6, 8} {
		whole := dsp.Decimate(x, factor, 0.25)
		assert.Len(t, whole, (len(x)+factor-1)/factor)
		for _, block := range []int{1, 97, 5000} {
			s := dsp.NewStream(factor, 0.25, 0.5)
			var got []float64
			for at := 0; at < len(x); at += block {
				got = append(got, s.Push(x[at:min(len(x), at+block)])...)
			}
			assert.Equal(t, whole, append(got, s.End()...), "factor %d, blocks of %d", factor, block)
		}
	}
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

func noise(seed uint64, n int) []float64 {
	chance := rand.New(rand.NewPCG(seed, 2))
	x := make([]float64, n)
	for k := range x {
		x[k] = chance.NormFloat64()
	}
	return x
}

func TestNSDFAgreesWithItsDefinition(t *testing.T) {
	a, b := noise(1, 333), noise(2, 333)
	c := dsp.NewCorrelator(len(a), 200)
	outA, outB := make([]float64, 200), make([]float64, 200)
	c.NSDF(a, b, outA, outB)
	for lag := range outA {
		assert.InDelta(t, slowNSDF(a, lag), outA[lag], 1e-9)
		assert.InDelta(t, slowNSDF(b, lag), outB[lag], 1e-9)
	}
	alone := make([]float64, 200)
	c.NSDF(a, nil, alone, nil)
	assert.InDeltaSlice(t, outA, alone, 1e-12)
}

func TestFFTAgreesWithGonum(t *testing.T) {
	for size := 4; size <= 2048; size *= 2 {
		re, im := noise(3, size), noise(4, size)
		x := make([]complex128, size)
		for n := range x {
			x[n] = complex(re[n], im[n])
		}
		want := fourier.NewCmplxFFT(size).Coefficients(nil, x)
		f := dsp.NewFFT(size)
		f.Transform(re, im)
		for k, w := range want {
			assert.InDelta(t, real(w), re[f.Place(k)], 1e-9, "size %d, frequency %d", size, k)
			assert.InDelta(t, imag(w), im[f.Place(k)], 1e-9, "size %d, frequency %d", size, k)
		}
	}
	assert.Panics(t, func() { dsp.NewFFT(48) })
}

// The choice of our own transform rests on this ratio.
func BenchmarkFFT(b *testing.B) {
	re, im := noise(3, 1024), noise(4, 1024)
	b.Run("ours", func(b *testing.B) {
		f := dsp.NewFFT(1024)
		for b.Loop() {
			f.Transform(re, im)
			clear(re)
		}
	})
	b.Run("gonum", func(b *testing.B) {
		f := fourier.NewCmplxFFT(1024)
		x := make([]complex128, 1024)
		for b.Loop() {
			f.Coefficients(x, x)
		}
	})
}

func TestNSDFOfSilenceIsZero(t *testing.T) {
	out := make([]float64, 10)
	dsp.NewCorrelator(20, 10).NSDF(make([]float64, 20), nil, out, nil)
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

// Both agree with a reference package.
func TestSlopeAgreesWithGonum(t *testing.T) {
	x, y := noise(8, 200), noise(9, 200)
	for n := range y {
		y[n] += 0.7 * x[n]
	}
	_, want := stat.LinearRegression(x, y, nil, false)
	assert.InDelta(t, want, dsp.Slope(x, y), 1e-9)
	assert.Zero(t, dsp.Slope([]float64{2, 2, 2}, []float64{1, 5, 9}), "straight up is no slope")
	assert.Zero(t, dsp.Slope(nil, nil))
}

// A cubic through four points of a cubic is that cubic.
func TestCubicIsExactOnCubics(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := rapid.SliceOfN(rapid.Float64Range(-5, 5), 4, 4).Draw(t, "coefficients")
		w := rapid.Float64Range(0, 1).Draw(t, "share")
		f := func(x float64) float64 { return c[0] + x*(c[1]+x*(c[2]+x*c[3])) }
		assert.InDelta(t, f(w), dsp.Cubic(f(-1), f(0), f(1), f(2), w), 1e-9)
	})
}

// A cosine's peaks lie at its periods and reach one, wherever they fall between
// samples: within a hundredth, where the samples alone would be a tenth too low at
// the narrowest. Where a broad one lies is told to half a sample, and refined
// elsewhere.
func TestPeakFindsAPeriodBetweenSamples(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		period := rapid.Float64Range(5, 60).Draw(t, "period")
		y := make([]float64, 160)
		for n := range y {
			y[n] = math.Cos(2 * math.Pi * float64(n) / period)
		}
		place, height := dsp.Peak(y, int(math.Round(period)))
		assert.InDelta(t, period, place, 0.5)
		assert.InDelta(t, 1, height, 0.01)
	})
	assert.Greater(t, 1-math.Cos(2*math.Pi*5/5.5), 0.1)
}

// A steady offset dies away and a tone stays what it was.
func TestBlockDCTakesTheOffsetAlone(t *testing.T) {
	x := sine(0.01, 20000)
	for n := range x {
		x[n] += 3
	}
	block := dsp.NewDCBlock(0.0001)
	block.Push(x[:100])
	block.Push(x[100:])
	late := x[18000:]
	assert.InDelta(t, 0, stat.Mean(late, nil), 1e-3)
	assert.InDelta(t, 1, dsp.Quantile(late, 1), 0.01)
}

// In a muted microphone's zeros it comes to rest, and stays no number too small for a
// processor to be quick about.
func TestBlockDCComesToRest(t *testing.T) {
	x := append(sine(0.01, 1000), make([]float64, 40000)...)
	block := dsp.NewDCBlock(0.005)
	block.Push(x)
	assert.Zero(t, x[len(x)-1])
}

// A quantile is read off the sorted values, however they lie.
func TestQuantileIsReadOffTheSortedValues(t *testing.T) {
	chance := rand.New(rand.NewPCG(8, 1))
	for length := 1; length < 300; length++ {
		x := make([]float64, length)
		for n := range x {
			x[n] = float64(chance.IntN(1 + length/(1+length%4))) // many alike
		}
		sorted := slices.Clone(x)
		slices.Sort(sorted)
		for n, want := range sorted {
			if length > 1 {
				assert.InDelta(t, want, dsp.Quantile(x, float64(n)/float64(length-1)), 1e-9)
			}
		}
		assert.Equal(t, sorted[length-1], dsp.Quantile(x, 1))
	}
}

func TestQuantilesLieBetweenNeighbours(t *testing.T) {
	x := []float64{40, 10, 30, 20}
	for q, want := range map[float64]float64{0: 10, 1: 40, 0.5: 25, 0.25: 17.5, 1. / 3: 20} {
		assert.InDelta(t, want, dsp.Quantile(x, q), 1e-9, "%v", q)
	}
	assert.Equal(t, []float64{40, 10, 30, 20}, x, "what is asked about is not put in order")
}
