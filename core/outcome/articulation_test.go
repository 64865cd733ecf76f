package outcome_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/outcome"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

const takeRate = 24000

var quietRoom = synth.Room{Seed: 2, Noise: -70}

// laid is a step for a player of stage 2.
func laid(t *testing.T, key string, step exercise.Step) (scores.Score, instrument.Instrument) {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := step.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(t, err)
	return s, i
}

// steady is somebody who plays well.
func steady(i instrument.Instrument) synth.Player {
	return synth.Player{
		Instrument: i,
		Seed:       3,
		Jitter:     2,
		Breath:     -44,
	}
}

// causesOf are what a take is not clean for.
func causesOf(t *testing.T, sound audio.Mono, s scores.Score) []measure.Cause {
	t.Helper()
	came, err := outcome.Of(context.Background(), quietRoom.Record(sound), outcome.Request{Score: s})
	require.NoError(t, err)
	return came.Verdict.Causes
}

// A start or a line played the other way than asked is told as that, and one that is
// played as asked as nothing (common practice, no published source).
func TestStartsAndLinesAsAsked(t *testing.T) {
	for _, c := range []struct {
		mistake string
		step    exercise.Step
		cause   measure.Cause
	}{
		{"breathes-starts", exercise.New("starts-and-ends", nil), measure.CauseBegins},
		{"tongues-starts", exercise.New("starts-and-ends", map[string]any{"start": "breath"}), measure.CauseBegins},
		{"slurs-instead", exercise.New("five-note-walk", nil), measure.CauseSlurred},
		{"tongues-instead", exercise.New("chromatic-loop", nil), measure.CauseTongue},
	} {
		for _, key := range []string{"flute", "clarinet", "trumpet", "euphonium"} {
			t.Run(c.mistake+"/"+key, func(t *testing.T) {
				t.Parallel()
				s, i := laid(t, key, c.step)
				player := steady(i)
				right, _ := synth.Playing{Score: s, Player: player}.Play(takeRate)
				assert.Empty(t, causesOf(t, right, s))
				m, ok := synth.MistakeOf(c.mistake)
				require.True(t, ok)
				at := m.At(s, i)
				require.NotEmpty(t, at)
				wrong, _ := m.Apply(player, s, at[len(at)-1]).Play(takeRate)
				assert.Equal(t, []measure.Cause{c.cause}, causesOf(t, wrong, s))
			})
		}
	}
}

// A long tone that is even on both sides of a sudden step is not even; one that fades as
// far, all the way, is told as fading.
func TestASuddenStepOfTheLoudness(t *testing.T) {
	s, i := laid(t, "clarinet", exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0}}))
	player := steady(i)
	sound, _ := player.Play(s, takeRate)
	target := s.Targets()[0]
	middle := int(float64(s.TempoBPM.Seconds(target.StartBeat+target.Beats/2)) * takeRate)
	const down, takes = 11., takeRate / 20 // dB, samples
	for n := middle; n < len(sound.Samples); n++ {
		sound.Samples[n] *= math.Pow(10, -down/20*min(1, float64(n-middle)/takes))
	}
	assert.Equal(t, []measure.Cause{measure.CauseStep}, causesOf(t, sound, s))
	player.Fade = 13
	fading, _ := player.Play(s, takeRate)
	assert.Equal(t, []measure.Cause{measure.CauseFade}, causesOf(t, fading, s))
}
