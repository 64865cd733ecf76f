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
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/synth"
)

// burst is a tone that begins at once and dies away, as clicks, taps and bells do.
type burst struct {
	at, fades music.Seconds
	hertz     float64
	peak      float64
}

// bursts lays bursts into four seconds of silence, as a room with an echo records
// them.
func bursts(all []burst, room synth.Room) audio.Mono {
	const rate = 32000
	m := audio.Mono{Rate: rate, Samples: make([]float64, 4*rate)}
	for _, b := range all {
		for n := int(float64(b.at) * rate); n < len(m.Samples); n++ {
			t := float64(n)/rate - float64(b.at)
			if t > 12*float64(b.fades) {
				break
			}
			m.Samples[n] += b.peak * math.Exp(-t/float64(b.fades)) * math.Sin(2*math.Pi*b.hertz*t)
		}
	}
	return room.Record(m)
}

// heardWhole listens to a sound and holds what is true of any analysis.
func heardWhole(t *testing.T, sound audio.Mono, q ear.Question) {
	t.Helper()
	a, err := ear.Analyze(context.Background(), sound, q)
	require.NoError(t, err)
	for n, note := range a.Notes {
		if note.Played {
			assert.Greater(t, note.Release, note.Onset, "note %d ends after it begins", n)
		}
	}
}

// FuzzAnalyze listens to any row of bursts in any room, asked for any kind of step.
// The corpus has the echo of a click, a pitch of a twentieth of a second whose edges,
// refined from both sides, met and passed each other.
func FuzzAnalyze(f *testing.F) {
	f.Add(uint64(1), uint8(0), uint8(30))
	f.Add(uint64(2), uint8(7), uint8(50))
	f.Add(uint64(3), uint8(19), uint8(0))
	kinds := exercise.Catalogue()
	f.Fuzz(func(t *testing.T, seed uint64, kind, echo uint8) {
		chance := rand.New(rand.NewPCG(seed, 1))
		all := make([]burst, 1+chance.IntN(8))
		for n := range all {
			all[n] = burst{
				at:    music.Seconds(3.5 * chance.Float64()),
				fades: music.Seconds(0.002 * math.Pow(400, chance.Float64())), // 2 ms to 0.8 s
				hertz: 40 * math.Pow(60, chance.Float64()),
				peak:  math.Pow(10, -2*chance.Float64()),
			}
		}
		room := synth.Room{
			Seed:  seed,
			Echo:  music.Seconds(echo) / 100,
			Noise: music.Decibels(-80 + 50*chance.Float64()),
		}
		instruments := instrument.All()
		i := instruments[chance.IntN(len(instruments))]
		step := exercise.New(kinds[int(kind)%len(kinds)].Key, nil)
		score, err := step.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
		if err != nil {
			t.Skip("not for this instrument")
		}
		heardWhole(t, bursts(all, room), ear.Question{Instrument: &i, Score: &score})
	})
}
