package ask_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ask"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
)

// Steps of notes, of buzzing, of breath alone and of rhythms are rehearsed without a fault; the
// take that comes in meanwhile is left alone.
func TestAStepIsRehearsedBesideATake(t *testing.T) {
	conventions := standardConventions(t)
	for _, kind := range []string{"long-tone-counted", "high-low-buzz", "breath-pattern", "rhythm-on-a-note"} {
		var worked struct {
			Score json.RawMessage `json:"score"`
		}
		require.NoError(t, json.Unmarshal(put(t, "work", map[string]any{
			"setting": map[string]any{"instrument": "trumpet", "stage": 2, "conventions": conventions},
			"step":    map[string]any{"kind": kind, "parameters": map[string]any{}},
			"tempo":   0,
		}, &ask.Sound{}), &worked))
		coming := &ear.Take{}
		sound := ask.Sound{Take: coming}
		put(t, "rehearse", map[string]any{"score": worked.Score, "rate": 48000}, &sound)
		assert.Same(t, coming, sound.Take)
		assert.Empty(t, sound.Out.Samples, "nothing is to be heard of it")
	}
	_, err := ask.Answer("rehearse", []byte(`{"score":{"instrument":"trumpet"},"rate":7}`), &ask.Sound{})
	assert.Error(t, err, "the ear does not hear at that rate")
}

func standardConventions(t *testing.T) json.RawMessage {
	t.Helper()
	text, err := json.Marshal(exercise.StandardConventions())
	require.NoError(t, err)
	return text
}
