package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/plan"
)

// What is ready to begin from fits a class's minutes for the whole band.
func TestReadyWeeksFitAClass(t *testing.T) {
	for _, w := range plan.ReadyWeeks(exercise.StandardConventions().LongToneStep()) {
		week := plan.Plan{Name: w.Name, Items: w.Items}
		require.NoError(t, week.Check(), w.Key)
		day := week.OfDay(0, plan.InClass)
		fitted, err := plan.Fit(day, wholeBand(t, 1), plan.InClass, 8)
		require.NoError(t, err)
		assert.Empty(t, fitted.Beyond, w.Key)
		assert.GreaterOrEqual(t, len(fitted.Items), 4, w.Key)
	}
}
