package measure_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

func TestEveryMeasureIsWhole(t *testing.T) {
	keys := map[scores.MeasureKey]bool{}
	for _, m := range measure.All() {
		require.NotEmpty(t, m.Key)
		assert.False(t, keys[m.Key], "%s stands twice", m.Key)
		keys[m.Key] = true
		assert.NotEmpty(t, m.Meaning, m.Key)
		assert.NotNil(t, m.Take, m.Key)
		got, err := measure.Get(m.Key)
		if m.Fault == nil {
			assert.ErrorAs(t, err, &measure.UnknownError{}, "%s only informs", m.Key)
			assert.True(t, m.Informs, "%s neither judges nor informs", m.Key)
			continue
		}
		require.NoError(t, err)
		assert.Same(t, m, got)
	}
	_, err := measure.Get("colour")
	assert.ErrorContains(t, err, `"colour"`)
}

func TestEveryFaultIsMendedInItsTurnAndHasATip(t *testing.T) {
	causes, ranks, tips := map[measure.Cause]bool{}, map[int]measure.Cause{}, map[string]bool{}
	before := 0
	for _, f := range measure.Faults() {
		assert.False(t, causes[f.Cause], "two faults are called %s", f.Cause)
		causes[f.Cause] = true
		assert.Empty(t, ranks[f.Rank], "%s has the rank of %s", f.Cause, ranks[f.Rank])
		ranks[f.Rank] = f.Cause
		assert.Greater(t, f.Rank, before)
		before = f.Rank
		assert.Equal(t, f.Rank, f.Cause.Rank())
		require.NotEmpty(t, f.Tips, "nothing helps against %s", f.Cause)
		assert.Equal(t, "", string(f.Tips[len(f.Tips)-1].Family), "%s: the last tip answers every family", f.Cause)
		for _, a := range f.Tips {
			assert.False(t, tips[a.Key], "two tips are called %s", a.Key)
			tips[a.Key] = true
			assert.NotEmpty(t, a.Text, a.Key)
		}
	}
	assert.Equal(t, len(causes), len(measure.Causes()))
	assert.Less(t, measure.CauseWrongNote.Rank(), measure.CauseCentre.Rank(), "which note, before where it lies")
	assert.Greater(t, measure.Cause("unheard of").Rank(), before)
}
