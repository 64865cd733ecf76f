package contour_test

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/music"
)

// Squeaks that are looked for in a longer and longer stretch, as of a note that is still held,
// are those of the whole stretch looked at once: here over a pitch that sways, in blocks of
// any length.
func TestSqueaksOfAHeldNoteAreThoseOfTheWhole(t *testing.T) {
	const rate, seconds = 44_100, 6
	dice := rand.New(rand.NewPCG(3, 4))
	sound, phase := make([]float64, seconds*rate), 0.
	for n := range sound {
		at := float64(n) / rate
		phase += 2 * math.Pi * (233 + 4*math.Sin(2*math.Pi*at)) / rate
		sound[n] = 0.2*math.Sin(phase) + 0.1*math.Sin(2*phase) + 0.001*dice.NormFloat64()
		if at > 2 && at < 2.1 || at > 4.5 && at < 4.56 {
			sound[n] += 0.1 * math.Sin(2*math.Pi*2351*at)
		}
	}
	take, err := contour.OpenEar.Open(rate)
	require.NoError(t, err)
	from, least := music.Seconds(0.513), music.Decibels(-40)
	squeaks := 0
	for heard := 0; heard < len(sound); {
		block := min(len(sound)-heard, 1+dice.IntN(rate))
		take.Hear(sound[heard : heard+block])
		heard += block
		c, err := take.Track(context.Background())
		require.NoError(t, err)
		to := music.Seconds(len(c.Frames)) * contour.Hop
		whole := c.Squeaks(audio.Mono{Rate: rate, Samples: sound[:heard]}, from, to, least)
		assert.Equal(t, whole, take.Squeaks(c, from, to, least), "after %d samples", heard)
		squeaks = len(whole)
	}
	assert.GreaterOrEqual(t, squeaks, 2, "the two that sound are among them")
}
