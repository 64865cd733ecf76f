package chart_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/chart"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
)

func TestABookHasEveryNoteOfTheRange(t *testing.T) {
	for _, i := range instrument.All() {
		book := chart.Of(i, exercise.StandardConventions())
		assert.Len(t, book.Notes, int(i.Beginner.To-i.Beginner.From)+1, i.Key)
		first := 0
		for _, n := range book.Notes {
			if n.First {
				first++
			}
			assert.NotEmpty(t, n.WrittenName, i.Key)
			assert.Positive(t, float64(n.Hertz), i.Key)
		}
		assert.Equal(t, 5, first, i.Key)
		assert.Len(t, book.Drones, 12, i.Key)
		for _, d := range book.Drones {
			assert.NotRegexp(t, `[0-9]`, d.Called, i.Key)
			assert.GreaterOrEqual(t, float64(d.Pitch), 110., i.Key)
			assert.Less(t, float64(d.Pitch), 220., i.Key)
		}
	}
}

// Alternates stand beside the usual way, drawn, and black keys have both their names.
func TestABookShowsEveryWay(t *testing.T) {
	i, err := instrument.Get("clarinet")
	require.NoError(t, err)
	for _, n := range chart.Of(i, exercise.StandardConventions()).Notes {
		switch n.WrittenName {
		case "E♭4":
			assert.Len(t, n.Ways, 3, "side key, cross key, one and one")
			assert.Equal(t, "D♯", n.Also)
			for _, w := range n.Ways {
				assert.NotEmpty(t, w.Diagram.Marks)
			}
		case "C4":
			assert.Empty(t, n.Also)
			assert.True(t, n.First)
			assert.False(t, n.Upper)
		case "B4":
			assert.True(t, n.Upper)
			assert.True(t, n.Hard)
		}
	}
	trumpet, err := instrument.Get("trumpet")
	require.NoError(t, err)
	for _, n := range chart.Of(trumpet, exercise.StandardConventions()).Notes {
		if n.WrittenName == "D4" {
			assert.Contains(t, n.Tendency, "sharp")
		}
	}
}
