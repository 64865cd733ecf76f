package synth_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// Every mistake is made somewhere by somebody, sounds other than a right take, and
// leaves the score it is made in as it is.
func TestEveryMistakeIsHeard(t *testing.T) {
	made := map[string]int{}
	for _, key := range []string{"clarinet", "trombone", "alto-sax", "percussion"} {
		i, err := instrument.Get(key)
		require.NoError(t, err)
		for _, step := range []exercise.Step{
			exercise.New("long-tone-counted", nil),
			exercise.New("five-note-walk", nil),
			exercise.New("rhythm-on-a-note", nil),
			exercise.New("register-pair", nil),
			exercise.New("slur-across-partials", nil),
			exercise.New("sing-first", nil),
			exercise.New("excerpt", nil),
			exercise.New("chromatic-loop", nil),
			exercise.New("air-pulses", nil),
			exercise.New("starts-and-ends", nil),
			exercise.New("starts-and-ends", map[string]any{"start": "breath"}),
		} {
			if !step.Suits(i) {
				continue
			}
			s, err := step.Score(exercise.Player{Instrument: i, Stage: 3}, exercise.StandardConventions())
			require.NoError(t, err)
			before := s.Reads()
			right, _ := synth.Playing{Score: s, Player: synth.Player{Instrument: i}}.Play(8000)
			for _, m := range synth.Mistakes() {
				at := m.At(s, i)
				if len(at) == 0 || made[m.Key] > 0 {
					continue
				}
				made[m.Key]++
				wrong, _ := m.Apply(synth.Player{Instrument: i}, s, at[0]).Play(8000)
				assert.Len(t, wrong.Samples, len(right.Samples), m.Key)
				assert.NotEqual(t, right.Samples, wrong.Samples, "%s in %s", m.Key, step.Kind.Key)
			}
			assert.Equal(t, before, s.Reads())
		}
	}
	for _, m := range synth.Mistakes() {
		assert.Positive(t, made[m.Key], "%s is made by nobody", m.Key)
		assert.NotEmpty(t, m.Label)
	}
}

// Whoever stands in for the microphone plays any step: with the one mistake, or
// steadily where it cannot be made.
func TestEveryStandInPlaysEveryStep(t *testing.T) {
	i, err := instrument.Get("flute")
	require.NoError(t, err)
	seen := map[string]struct{}{}
	s, err := exercise.New("tuning-note", nil).
		Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(t, err)
	for _, one := range synth.StandIns() {
		assert.NotContains(t, seen, one.Key)
		seen[one.Key] = struct{}{}
		p, ok := synth.Perform(one.Key, s, i, 3)
		assert.True(t, ok, one.Key)
		sound, _ := p.Play(8000)
		assert.NotEmpty(t, sound.Samples)
	}
	_, ok := synth.Perform("perfect pitch", s, i, 3)
	assert.False(t, ok)
}

// Who cracks on the second note of a slur lands on a partial of that note's own fingering.
func TestACrackInASlurLandsOnThePartialOfItsOwnNote(t *testing.T) {
	i, err := instrument.Get("bass-clarinet")
	require.NoError(t, err)
	s, err := exercise.New("register-pair", nil).
		Score(exercise.Player{Instrument: i, Stage: 3}, exercise.StandardConventions())
	require.NoError(t, err)
	crack, ok := synth.MistakeOf("crack")
	require.True(t, ok)
	at := crack.At(s, i)
	k := slices.IndexFunc(at, func(n int) bool { return n > 0 && s.Targets()[n].Articulation == scores.Slurred })
	require.GreaterOrEqual(t, k, 0)
	target := s.Targets()[at[k]].Target
	_, truth := crack.Apply(synth.Player{Instrument: i}, s, at[k]).Play(8000)
	var highest music.Cents
	for _, f := range truth[at[k]].Path {
		if f > 0 {
			highest = max(highest, music.Between(target.Frequency(music.StandardA4), f))
		}
	}
	assert.InDelta(t, 100*synth.NextPartial(i, target), float64(highest), 40)
}
