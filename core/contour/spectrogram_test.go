package contour_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
)

func TestASpectrogramShowsWhereATonelies(t *testing.T) {
	m := audio.Mono{Rate: 48000, Samples: make([]float64, 48000)}
	for n := range m.Samples {
		m.Samples[n] = math.Sin(2*math.Pi*1000*float64(n)/48000) / 10
	}
	s := contour.SpectrogramOf(m)
	moments := len(s.Points) / s.Bins
	assert.InDelta(t, 40, moments, 1)
	assert.GreaterOrEqual(t, float64(s.Bin)*float64(s.Bins), 5000.)
	middle := s.Points[moments/2*s.Bins : (moments/2+1)*s.Bins]
	loudest := 0
	for k, v := range middle {
		if v > middle[loudest] {
			loudest = k
		}
	}
	assert.InDelta(t, 1000, float64(loudest)*float64(s.Bin), float64(s.Bin))
	// A tenth of full scale is 20 dB down, a quarter of the 80 dB shown; between
	// two bins a Hann window loses at most 1.4 dB (Harris 1978, from memory).
	assert.InDelta(t, 255*0.75, float64(middle[loudest]), 6)
	assert.Zero(t, middle[len(middle)-1])
	assert.Empty(t, contour.SpectrogramOf(audio.Mono{Rate: 48000}).Points)
}
