package ear_test

import (
	"context"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/synth"
)

// inBlocks listens to a sound in blocks whose ends are drawn, looking ahead between some.
func inBlocks(t *rapid.T, sound audio.Mono, q ear.Question) ear.Analysis {
	take, err := ear.Open(q, sound.Rate)
	require.NoError(t, err)
	longest := rapid.SampledFrom([]int{100, 512, 5_000, 60_000, len(sound.Samples)}).Draw(t, "longest block")
	dice := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "ends"), 1))
	sinceAhead := 0
	for at := 0; at < len(sound.Samples); {
		to := min(len(sound.Samples), at+1+dice.IntN(longest))
		take.Hear(append([]float64(nil), sound.Samples[at:to]...))
		if sinceAhead += to - at; sinceAhead > sound.Rate/2 && dice.IntN(2) == 0 {
			take.Ahead(context.Background())
			sinceAhead = 0
		}
		at = to
	}
	heard, err := take.Finish(context.Background(), q.Alignment)
	require.NoError(t, err)
	return heard
}

// What is heard of a take that came in blocks is what is heard of the whole of it, to the
// last bit: every kind, every instrument, in rooms, with clicks, hum and a neighbor.
func TestATakeInBlocksIsHeardAsAWhole(t *testing.T) {
	kinds, all := exercise.KindKeys(), instrument.All()
	rapid.Check(t, func(t *rapid.T) {
		i := rapid.SampledFrom(all).Draw(t, "instrument")
		kind := rapid.SampledFrom(kinds).Draw(t, "kind")
		score, err := exercise.New(kind, nil).Score(
			exercise.Player{Instrument: i, Stage: 2},
			exercise.StandardConventions(),
		)
		if err != nil {
			t.Skip("not for this instrument")
		}
		rate := rapid.SampledFrom([]int{16_000, 44_100, 48_000}).Draw(t, "rate")
		player := rapid.SampledFrom(synth.StandIns()).Draw(t, "player")
		p, ok := synth.Perform(player.Key, score, i, rapid.Uint64().Draw(t, "seed"))
		require.True(t, ok)
		sound, _ := p.Play(rate)
		room := synth.Room{Noise: -62}
		if rapid.Bool().Draw(t, "a live room") {
			room = synth.Room{Echo: 0.7, Noise: -50, Clicks: []music.Seconds{0.3, 1.1, 1.9, 2.7, 3.5}}
		}
		sound = room.Record(sound)
		if most := 4 * rate; len(sound.Samples) > most {
			sound.Samples = sound.Samples[:most]
		}
		q := ear.Question{Instrument: &i, Score: &score}
		whole, err := ear.Analyze(context.Background(), sound, q)
		require.NoError(t, err)
		assert.Equal(t, whole, inBlocks(t, sound, q))
	})
}
