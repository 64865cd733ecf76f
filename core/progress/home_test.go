package progress_test

import (
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/measure"
	"earlychorus/core/progress"
)

// A family reads what went well with a number that bears it, one thing to try, and how to
// help; no cents, no decibels, no names of measures.
func TestAFamilyReadsWhatWentWell(t *testing.T) {
	better := progress.Line{Trend: &progress.Trend{PerWeek: -1, Clear: true}}
	h := progress.HomeOf(progress.AtHome{
		First:    "Wren",
		Days:     31,
		LateDays: 9,
		Clean:    12,
		Takes:    30,
		Growth: progress.Growth{
			Weeks:      []progress.Week{{BestHold: 6.1}, {BestHold: 11.2}},
			Steadiness: better,
		},
		Causes: []measure.Cause{measure.CauseGap, measure.CauseLate, measure.CauseGap, measure.CauseGap},
	})
	assert.Equal(t, "Wren held one note for 11 seconds. In the first of these weeks it was 6.", h.Well[0])
	assert.Contains(t, h.Well[1], "steadier")
	assert.Len(t, h.Well, 3)
	assert.Contains(t, h.Try, "bigger breath")
	assert.Len(t, h.Help, 3)
	for _, words := range append(append([]string{h.Try}, h.Well...), h.Help...) {
		assert.NotRegexp(t, regexp.MustCompile(`cents|dB|Hz|partial|rung`), words)
	}
}

// Nothing is praised that did not happen, and a family is not left without a word.
func TestAFamilyOfSomebodyWhoDidNotPlay(t *testing.T) {
	h := progress.HomeOf(progress.AtHome{First: "Wren"})
	assert.Equal(t, []string{"Wren has not recorded anything in these weeks. Any day is a good day to begin."}, h.Well)
	assert.Contains(t, h.Try, "Little and often")
	once := progress.AtHome{First: "Wren", Days: 1}
	once.LateDays = 1
	h = progress.HomeOf(once)
	assert.Equal(t, []string{"Wren practiced on 1 of the last 14 days."}, h.Well)
}
