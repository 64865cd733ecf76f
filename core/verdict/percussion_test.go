package verdict_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/say"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

// struck lets a simulated percussion player strike the rhythm on a pad, as one who stands
// in for the microphone does, and decides on it.
func struck(t *testing.T, standIn string, set map[string]any) say.Said {
	t.Helper()
	i, err := instrument.Get("percussion")
	require.NoError(t, err)
	s, err := exercise.New("rhythm-on-a-note", set).
		Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(t, err)
	p, ok := synth.Perform(standIn, s, i, 7)
	require.True(t, ok)
	sound, _ := p.Play(24000)
	a, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s})
	require.NoError(t, err)
	return decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s, Analysis: a}})
}

// Percussion strikes the same rhythm on a pad, and is judged by when it strikes.
func TestPercussionIsJudgedByItsStrokes(t *testing.T) {
	right := struck(t, "steady", nil)
	assert.Equal(t, verdict.Clean, right.Result, right.Sentence)
	three := struck(t, "steady", map[string]any{"notes": []int{0, 2, 4}, "each": "turn"})
	assert.Equal(t, verdict.Clean, three.Result, three.Sentence)

	missing := struck(t, "stroke-missing", nil)
	assert.NotEqual(t, verdict.Clean, missing.Result)
	assert.Equal(t, "6 of 7 strokes came. Stroke 3 was missing.", missing.Sentence)
	assert.Equal(t, "strokes-few", missing.Tip.Key)

	late := struck(t, "strokes-late", nil)
	assert.NotEqual(t, verdict.Clean, late.Result)
	assert.Equal(t, measure.CauseStrokeTiming, late.Deciding.Cause)
	assert.Contains(t, late.Sentence, "after the beat")
	assert.Equal(t, "stroke-late", late.Tip.Key)
}

// Nobody at the pad is nobody heard, and a class with percussion asks nothing else of it.
func TestAPadThatIsNotStruckIsTold(t *testing.T) {
	i, err := instrument.Get("percussion")
	require.NoError(t, err)
	s, err := exercise.New("rhythm-on-a-note", nil).
		Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(t, err)
	quiet, _ := synth.Player{Instrument: i, Room: -60}.Play(s, 24000)
	for n := range quiet.Samples {
		quiet.Samples[n] *= 0.001
	}
	a, err := ear.Analyze(context.Background(), quiet, ear.Question{Instrument: &i, Score: &s})
	require.NoError(t, err)
	v := decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s, Analysis: a}})
	assert.Equal(t, verdict.CantTell, v.Result)
	_, err = exercise.New("swell", nil).Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	assert.ErrorIs(t, err, exercise.ErrNotFor)
}
