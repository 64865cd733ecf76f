package contour

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/audio"
)

// A muted microphone sends nothing but zeros. A filter that rings on in them for ever comes
// to numbers so small that a processor takes a hundred times as long over each.
func TestFiltersAreAtRestAfterSecondsOfNothing(t *testing.T) {
	const rate = 48000
	x := make([]float64, 12*rate)
	for n := range x[:rate] {
		x[n] = math.Sin(float64(n)) / 2
	}
	l := NewLoudness(audio.Mono{Rate: rate, Samples: x})
	assert.Equal(t, [4]float64{}, l.shelf.last)
	assert.Equal(t, [4]float64{}, l.pass.last)
	assert.Equal(t, Silence, l.Momentary[len(l.Momentary)-1])
}
