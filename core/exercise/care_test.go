package exercise_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
)

// Care is told of what the instrument has (common practice, no published source).
func TestCareFitsTheInstrument(t *testing.T) {
	said := func(key, when string) string {
		i, err := instrument.Get(key)
		require.NoError(t, err)
		who := exercise.Player{Instrument: i, Stage: 1}
		step := exercise.New("care", map[string]any{"when": when})
		score, err := step.Score(who, exercise.StandardConventions())
		require.NoError(t, err)
		var all []string
		for _, s := range score.Segments {
			all = append(all, s.Text)
		}
		return strings.Join(all, "\n")
	}
	for _, c := range []struct{ key, when, has, hasNot string }{
		{"oboe", "daily", "a case that lets air in", "flat"},
		{"clarinet", "daily", "dry flat", "lets air in"},
		{"soprano-recorder", "weekly", "the window", "pads"},
		{"flute", "weekly", "pads", "window"},
		{"horn", "weekly", "rotor oil", "One valve at a time"},
		{"trumpet", "weekly", "One valve at a time", "rotor"},
		{"trombone", "weekly", "spray of water", "valve"},
		{"tuba", "monthly", "never force the brush round a bend", "cork"},
	} {
		words := said(c.key, c.when)
		assert.Contains(t, words, c.has, c.key)
		assert.NotContains(t, words, c.hasNot, c.key)
	}
}

// Each instrument is held in its own way, and no two families' hands change places.
func TestTheHoldIsTheInstruments(t *testing.T) {
	for key, want := range map[string]string{
		"horn": "right hand in the bell", "trombone": "two fingers and the thumb", "bassoon": "seat strap",
		"tuba": "rest", "euphonium": "Across the lap", "alto-sax": "Strap", "trumpet": "Left hand carries",
	} {
		i, err := instrument.Get(key)
		require.NoError(t, err)
		score, err := exercise.New("set-up", nil).
			Score(exercise.Player{Instrument: i, Stage: 1}, exercise.StandardConventions())
		require.NoError(t, err)
		assert.Contains(t, score.Segments[3].Text, want, key)
	}
}
