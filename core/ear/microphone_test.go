package ear_test

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/ear"
)

// checkSound is seven seconds of a check: a room of hiss, a note in the middle.
func checkSound(room, note float64, gain func(at float64) float64) audio.Mono {
	const rate = 48000
	chance := rand.New(rand.NewPCG(1, 2))
	m := audio.Mono{Rate: rate, Samples: make([]float64, 7*rate)}
	for n := range m.Samples {
		at := float64(n) / rate
		x := room * chance.NormFloat64()
		if at > 2.3 && at < 4.8 {
			for k := 1; k <= 6; k++ {
				x += note / float64(k) * math.Sin(2*math.Pi*233.08*float64(k)*at)
			}
		}
		m.Samples[n] = max(-1, min(1, x*gain(at)))
	}
	return m
}

func level(float64) float64 { return 1 }

func TestAMicrophoneIsChecked(t *testing.T) {
	// A device that rides the gain turns the room up while nothing is played.
	riding := func(at float64) float64 {
		switch {
		case at > 2.3 && at < 4.8:
			return 0.3
		case at >= 4.8:
			return 0.3 + 2.5*(at-4.8)
		}
		return 0.3
	}
	for _, c := range []struct {
		name  string
		sound audio.Mono
		good  bool
		says  string
	}{
		{"a good one", checkSound(0.0005, 0.15, level), true, "All is well"},
		{"silence", checkSound(0, 0, level), false, "no sound"},
		{"too loud", checkSound(0.0005, 1.4, level), false, "too loud"},
		{"too far", checkSound(0.00001, 0.0012, level), false, "too far"},
		{"a loud room", checkSound(0.05, 0.09, level), false, "room is loud"},
		{"nothing played", checkSound(0.003, 0, level), false, "No note was heard"},
		{"gain riding", checkSound(0.002, 0.3, riding), false, "volume up and down"},
	} {
		got, err := ear.CheckMicrophone(context.Background(), c.sound)
		require.NoError(t, err, c.name)
		assert.Equal(t, c.good, got.Good, "%s: %+v", c.name, got)
		require.NotEmpty(t, got.Says, c.name)
		assert.Contains(t, got.Says[0], c.says, c.name)
	}
}
