package audio_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/audio"
)

// A model begins with its sound and is as loud as any other, however it was recorded.
func TestAModelIsTrimmedAndLeveled(t *testing.T) {
	recorded := func(level float64) audio.Mono {
		m := audio.Mono{Rate: 8000, Samples: make([]float64, 8*8000)}
		for n := range m.Samples {
			m.Samples[n] = level * 1e-4 * math.Sin(float64(n)*1.7) // the room
			if n >= 3*8000 && n < 5*8000 {
				m.Samples[n] += level * math.Sin(2*math.Pi*233*float64(n)/8000)
			}
		}
		return m
	}
	soft, loud := recorded(0.01).Model(), recorded(0.9).Model()
	for _, m := range []audio.Mono{soft, loud} {
		assert.InDelta(t, 2.3, m.Seconds(), 0.05)
		peak := 0.
		for _, x := range m.Samples {
			peak = max(peak, math.Abs(x))
		}
		assert.InDelta(t, 0.1*math.Sqrt2, peak, 0.01)
	}
	assert.Empty(t, audio.Mono{Rate: 8000, Samples: make([]float64, 8000)}.Model().Samples)
	assert.Empty(t, audio.Mono{Rate: 8000}.Model().Samples)
}
