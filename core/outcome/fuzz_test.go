package outcome_test

import (
	"context"
	"encoding/json"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/outcome"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

// spoil does to a take what devices, cables and children do; each takes how far it
// goes, 0 to 1.
var spoil = []func(x []float64, rate int, far float64, chance *rand.Rand) []float64{
	func(x []float64, _ int, _ float64, _ *rand.Rand) []float64 { return x },
	// It ends early.
	func(x []float64, _ int, far float64, _ *rand.Rand) []float64 { return x[:int(float64(len(x))*(1-far))] },
	// It begins in the middle.
	func(x []float64, _ int, far float64, _ *rand.Rand) []float64 { return x[int(float64(len(x))*far):] },
	// Blocks were lost.
	func(x []float64, rate int, far float64, chance *rand.Rand) []float64 {
		for range int(1 + 40*far) {
			from := chance.IntN(len(x))
			clear(x[from:min(len(x), from+chance.IntN(rate/4))])
		}
		return x
	},
	// Blocks came twice.
	func(x []float64, rate int, far float64, chance *rand.Rand) []float64 {
		for range int(1 + 10*far) {
			from := chance.IntN(len(x))
			length := min(chance.IntN(rate/2), len(x)-from)
			x = append(x[:from+length], append(append([]float64(nil), x[from:from+length]...), x[from+length:]...)...)
		}
		return x
	},
	// Too loud, too soft.
	func(x []float64, _ int, far float64, _ *rand.Rand) []float64 {
		gain := math.Pow(10, 6*far-3)
		for n := range x {
			x[n] = max(-1, min(1, gain*x[n]))
		}
		return x
	},
	// Played backwards, which no rule of playing expects.
	func(x []float64, _ int, _ float64, _ *rand.Rand) []float64 {
		for a, b := 0, len(x)-1; a < b; a, b = a+1, b-1 {
			x[a], x[b] = x[b], x[a]
		}
		return x
	},
	// At another speed.
	func(x []float64, _ int, far float64, _ *rand.Rand) []float64 {
		out := make([]float64, int(float64(len(x))*(0.5+far)))
		for n := range out {
			out[n] = x[min(len(x)-1, int(float64(n)/(0.5+far)))]
		}
		return out
	},
	// One constant value.
	func(x []float64, _ int, far float64, _ *rand.Rand) []float64 {
		for n := range x {
			x[n] = far
		}
		return x
	},
}

// asked is a step of any kind for any player, and what is played to it, which may be
// another step's notes.
func asked(t *testing.T, who, kind, stage uint8) (scores.Score, instrument.Instrument, bool) {
	t.Helper()
	all, kinds := instrument.All(), exercise.Catalogue()
	i, k := all[int(who)%len(all)], kinds[int(kind)%len(kinds)]
	step, err := exercise.Parse(k.Key, nil)
	require.NoError(t, err)
	if !step.Suits(i) {
		return scores.Score{}, i, false
	}
	s, err := step.Score(
		exercise.Player{Instrument: i, Stage: scores.Stage(1 + stage%4)}, exercise.StandardConventions(),
	)
	require.NoError(t, err)
	return s, i, true
}

// FuzzTake gives any take of a simulated player, spoiled in any way, to the rules of
// any step: nothing of it may panic, and what comes out can be kept, drawn and said.
func FuzzTake(f *testing.F) {
	for n := range uint8(len(spoil)) {
		f.Add(n, 3*n, n, 5*n, 7*n, n, n, uint16(20_000), int16(0), uint64(n))
	}
	const rate = 16000
	f.Fuzz(func(
		t *testing.T, who, kind, stage, played, mistake, target, how uint8, far uint16, start int16, seed uint64,
	) {
		score, i, suits := asked(t, who, kind, stage)
		other, _, plays := asked(t, who, played, stage)
		if !suits || !plays || score.Seconds() > 60 || other.Seconds() > 60 || score.Ticked || score.Metered {
			t.Skip("another instrument's, not recorded, or too long")
		}
		playing := synth.Playing{Score: other, Player: synth.Player{Instrument: i, Seed: seed, Jitter: 3}}
		mistakes := synth.Mistakes()
		m := mistakes[int(mistake)%len(mistakes)]
		if at := m.At(other, i); len(at) > 0 {
			playing = m.Apply(playing.Player, other, at[int(target)%len(at)])
		}
		sound, _ := playing.Play(rate)
		if len(sound.Samples) == 0 {
			t.Skip("nothing is played in it")
		}
		sound.Samples = spoil[int(how)%len(spoil)](
			sound.Samples, rate, float64(far)/math.MaxUint16, rand.New(rand.NewPCG(seed, 1)),
		)
		whole(t, sound, i, outcome.Request{
			Score: score, Start: music.Seconds(start) / 1000, FreeStart: seed%5 == 0,
		})
	})
}

// whole holds what is true of any outcome.
func whole(t *testing.T, sound audio.Mono, i instrument.Instrument, r outcome.Request) {
	t.Helper()
	came, err := outcome.Of(context.Background(), sound, r)
	require.NoError(t, err)
	assert.Len(t, came.Analysis.Accounts, len(r.Score.Targets()))
	_, err = json.Marshal(came) // a number that is none cannot be kept
	require.NoError(t, err)
	said := say.Teller{Instrument: i}.Verdict(came.Verdict)
	assert.NotEmpty(t, said.Sentence)
	if !said.Ungraded && said.Result != verdict.Clean {
		assert.NotEmpty(t, said.Short, "%+v", came.Verdict)
	}
	_, err = came.Draw(r.Score, 96)
	require.NoError(t, err)
	for _, n := range came.Analysis.Notes {
		assert.GreaterOrEqual(t, n.Release, n.Onset)
	}
}
