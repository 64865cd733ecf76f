package dsp_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/dsp"
)

// The greatest of what lies ahead is what looking at all of it finds.
func TestHighestIsTheGreatestAhead(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for _, length := range []int{0, 1, 2, 30, 200} {
		x := make([]float64, length)
		for n := range x {
			x[n] = float64(random.IntN(20)) - 10 // often the same twice
		}
		for _, over := range []int{1, 2, 7, 300} {
			found := dsp.Highest(x, over)
			for n := range x {
				assert.Equal(t, slices.Max(x[n:min(length, n+over)]), found[n], "%d of %d over %d", n, length, over)
			}
		}
	}
}
