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

// Every note, every change and the fingers of every kind, for every instrument it is for:
// what is left of a step is told as what it is, not as the whole.
func TestEveryPartOfEveryKindIsTold(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		step := exercise.New(k.Key, nil)
		for _, i := range instrument.All() {
			if !step.Suits(i) || k.Ticked || k.Metered {
				continue
			}
			s, err := step.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
			require.NoError(t, err)
			for n := range s.Targets() {
				one, err := practice.PartOf(s, practice.Part{Notes: []int{n}})
				require.NoError(t, err)
				note := one.Score.Targets()[0]
				assert.Contains(t, one.Task.Sentence, note.Called, "%s, %s", k.Key, i.Key)
				assert.NotContains(t, one.Task.Sentence, "grow", "%s, %s", k.Key, i.Key)
				if n > 0 {
					_, err = practice.PartOf(s, practice.Part{Notes: []int{n - 1, n}})
					require.NoError(t, err)
				}
			}
			fingers, err := practice.PartOf(s, practice.Part{Silent: true})
			require.NoError(t, err)
			if len(s.Targets()) > 0 {
				assert.Contains(t, fingers.Task.Sentence, "fingers", "%s, %s", k.Key, i.Key)
			}
		}
	}
}
