package notation_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/notation"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
)

// In class percussion has something of every step that takes time together: its own part,
// or the others' beats to count. It is given nobody else's list to tick and no meter.
func TestPercussionIsPartOfEveryStepInClass(t *testing.T) {
	percussion := player(t, "percussion")
	c := exercise.StandardConventions()
	counted := 0
	for _, k := range exercise.Catalogue() {
		item := plan.Item{Step: exercise.Step{Kind: k, Values: c.Opens(k)}, Times: 1, At: plan.InClass}
		mine, ok, err := notation.ScoreOf(item, plan.InClass, percussion, c)
		require.NoError(t, err, k.Key)
		if k.Unpitched {
			assert.True(t, ok, k.Key)
			continue
		}
		assert.Equal(t, !k.Ticked && !k.Metered, ok, k.Key)
		if _, atHome, err := notation.ScoreOf(item, plan.AtHome, percussion, c); assert.NoError(t, err) {
			assert.False(t, atHome, "%s: nobody counts along alone", k.Key)
		}
		if !ok {
			continue
		}
		counted++
		assert.Empty(t, mine.Items, k.Key)
		assert.False(t, mine.Ticked || mine.Metered, k.Key)
		for _, s := range mine.Segments {
			assert.False(t, s.Phase.Sounds() || s.Phase == scores.Finger, "%s: %s", k.Key, s.Phase)
			assert.Zero(t, s.Target, k.Key)
		}
		// Everybody waits for whoever takes longest.
		for _, other := range instrument.All() {
			theirs, ok, err := notation.ScoreOf(item, plan.InClass, player(t, other.Key), c)
			require.NoError(t, err)
			assert.False(t, ok && theirs.Beats() > mine.Beats(), "%s: %s plays on", k.Key, other.Key)
		}
	}
	assert.Greater(t, counted, 20)
	_, err := notation.SheetOf(plan.DemoWeek(), 0, plan.InClass, percussion, c)
	require.NoError(t, err)
}
