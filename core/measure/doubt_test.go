package measure_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ear"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// swellCase is a swell whose five stretches are so loud.
func swellCase(levels ...music.Decibels) measure.Case {
	c := measure.Case{Score: scores.Score{TempoBPM: 60, A4Hz: 440}}
	for n, level := range levels {
		c.Score.Segments = append(c.Score.Segments, scores.Segment{
			Phase:        scores.Play,
			StartBeat:    music.Beats(4 * n),
			Beats:        4,
			Target:       58,
			Articulation: scores.Slurred,
		})
		c.Analysis.Notes = append(c.Analysis.Notes, ear.Note{
			Played:    true,
			Level:     level,
			LevelFrom: level,
			LevelTo:   level,
			Start:     ear.BySlur,
		})
	}
	c.Analysis.Notes[1].LevelTo, c.Analysis.Notes[3].LevelTo = levels[2], levels[4]
	return c
}

// Another player makes soft notes louder than they are, never softer, and loud ones louder.
func TestAContrastHeardInSpiteOfAnotherStands(t *testing.T) {
	for _, c := range []struct {
		says   string
		levels []music.Decibels
		beside int // which stretch the other sounds with
		doubt  ear.Doubt
	}{
		{"beside soft, and heard", []music.Decibels{-42, -32, -22, -32, -42}, 4, ""},
		{"beside soft, first too", []music.Decibels{-42, -32, -22, -32, -42}, 0, ""},
		{"beside soft, not heard", []music.Decibels{-30, -28, -27, -28, -30}, 4, ear.WithAnother},
		{"beside loud, and heard", []music.Decibels{-42, -32, -22, -32, -42}, 2, ear.WithAnother},
	} {
		t.Run(c.says, func(t *testing.T) {
			swell := swellCase(c.levels...)
			swell.Analysis.Notes[c.beside].Distrust.Level = ear.WithAnother
			out := measure.SwellRange.Take(swell, 10)
			require.Len(t, out, 1)
			assert.Equal(t, c.doubt, out[0].Trust)
		})
	}
}

// A stretch of a swell that is heard a little late has no start to be late for.
func TestANoteHeldOnHasNoStart(t *testing.T) {
	c := swellCase(-42, -32, -22, -32, -42)
	for n := range c.Analysis.Notes {
		c.Analysis.Notes[n].Response = 0.4
	}
	out := measure.Response.Take(c, 0.2)
	require.Len(t, out, 1, "only the first begins")
	assert.Zero(t, out[0].Note)
}
