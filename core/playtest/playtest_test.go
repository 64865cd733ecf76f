package playtest_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/playtest"
	"earlychorus/core/verdict"
)

// Only takes up to the day count, and of them the first so many; what the ear cannot judge
// uses none up.
func TestWhichTakesCount(t *testing.T) {
	take := func(id, on string, r verdict.Result) playtest.Take { return playtest.Take{ID: id, Day: on, Result: r} }
	takes := []playtest.Take{
		take("a", "2026-12-01", verdict.CantTell),
		take("b", "2026-12-01", verdict.NotYet),
		take("c", "2026-12-02", verdict.Nearly),
		take("d", "2026-12-03", verdict.NotYet),
		take("e", "2026-12-03", verdict.Clean), // the fourth
		take("f", "2026-12-05", verdict.Clean), // a day late
	}
	best := playtest.Test{Due: "2026-12-04", Takes: 3, Counts: playtest.Best}
	assert.Equal(t, playtest.Standing{Used: 3, Result: verdict.Nearly, Take: "c"}, best.Standing(takes))
	last := playtest.Test{Due: "2026-12-04", Takes: 3, Counts: playtest.Last}
	assert.Equal(t, playtest.Standing{Used: 3, Result: verdict.NotYet, Take: "d"}, last.Standing(takes))
	assert.Equal(t, playtest.Standing{Result: verdict.CantTell, Take: "a"}, best.Standing(takes[:1]))
	assert.Equal(t, playtest.Standing{Late: true}, best.Standing(takes[5:]))
	assert.Equal(t, playtest.Standing{}, best.Standing(nil))
	waits := best.Standing([]playtest.Take{take("w", "2026-12-01", ""), takes[1]})
	assert.True(t, waits.Waits)
	assert.Equal(t, verdict.NotYet, waits.Result)
}

func TestATestThatCannotBeSet(t *testing.T) {
	good := playtest.Test{Due: "2026-12-04", Takes: 3, Counts: playtest.Best}
	assert.NoError(t, good.Check())
	none, middle := good, good
	none.Takes, middle.Counts = 0, "middle"
	assert.ErrorContains(t, none.Check(), "test.takes: let")
	assert.ErrorContains(t, middle.Check(), "test.counts: let")
}
