package practice_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/outcome"
	"earlychorus/core/practice"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

func walk(t *testing.T) (scores.Score, instrument.Instrument) {
	t.Helper()
	i, err := instrument.Get("clarinet")
	require.NoError(t, err)
	s, err := exercise.New("scale", nil).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	return s, i
}

// One note and one change of any step can be practiced alone, and a good player of the
// part is told that it was clean.
func TestAPartOfAStepIsPlayedAndJudgedByItself(t *testing.T) {
	s, i := walk(t)
	for _, notes := range [][]int{{6}, {6, 7}} {
		p, err := practice.PartOf(s, practice.Part{Notes: notes})
		require.NoError(t, err)
		targets := p.Score.Targets()
		require.Len(t, targets, len(notes))
		assert.Equal(t, "B", targets[0].Called)
		assert.Equal(t, scores.CountIn, targets[0].StartBeat)
		player, _ := synth.Perform("steady", p.Score, i, 1)
		sound, _ := player.Play(48000)
		came, err := outcome.Of(context.Background(), sound, outcome.Request{Score: p.Score})
		require.NoError(t, err)
		assert.Equal(t, verdict.Clean, came.Verdict.Result, "%v %v", notes, came.Verdict.Deciding)
	}
	_, err := practice.PartOf(s, practice.Part{Notes: []int{99}})
	require.ErrorIs(t, err, practice.ErrNoPart)
}

// Fingers alone: the whole step to the click, without a sound that would be judged.
func TestFingersAloneMakeNoSound(t *testing.T) {
	s, _ := walk(t)
	p, err := practice.PartOf(s, practice.Part{Silent: true})
	require.NoError(t, err)
	assert.Empty(t, p.Score.Targets())
	assert.Empty(t, p.Score.Rules)
	assert.Equal(t, s.Beats(), p.Score.Beats())
	assert.Equal(t, "Finger low C", p.Score.Segments[2].Text)
	assert.NotNil(t, p.Score.Segments[2].Fingering)
}
