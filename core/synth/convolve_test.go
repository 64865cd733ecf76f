package synth

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A sound meets a response as the definition says, whatever the lengths of both.
func TestConvolved(t *testing.T) {
	chance := rand.New(rand.NewPCG(1, 2))
	noise := func(n int) []float64 {
		x := make([]float64, n)
		for k := range x {
			x[k] = chance.NormFloat64()
		}
		return x
	}
	for _, c := range []struct{ sound, response int }{
		{1, 1}, {1000, 1}, {999, 2500}, {convolveBlock * 2, 700}, {3*convolveBlock + 17, convolveBlock + 1},
	} {
		x, response := noise(c.sound), noise(c.response)
		got := convolved(x, response)
		assert.Len(t, got, c.sound)
		for n := 0; n < c.sound; n += 1 + c.sound/200 {
			var want float64
			for k := 0; k <= n && k < c.response; k++ {
				want += response[k] * x[n-k]
			}
			assert.InDelta(t, want, got[n], 1e-8, "%d through %d, sample %d", c.sound, c.response, n)
		}
	}
}
