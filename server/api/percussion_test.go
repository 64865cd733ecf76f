package api_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/roster"
	"earlychorus/core/verdict"
	"earlychorus/server/board"
	"earlychorus/server/practicepage"
	"earlychorus/server/store/storetest"
)

// A percussion player is on the roster, is asked for what a pad can do and nothing else,
// and is judged by strokes.
func TestPercussionIsInTheBand(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	rhythm := b.AddStep(t, h.store, exercise.New("rhythm-on-a-note", nil))
	director := h.director(t, b)
	path := "/classes/" + b.Class.ID
	key, _ := roster.InstrumentOf("Snare Drum")
	assert.Equal(t, "percussion", key)

	b.Players[0].Instrument, b.Players[0].Variant = "percussion", ""
	require.NoError(t, h.store.SaveRoster(t.Context(), nil, b.Players[:1]))
	player := h.player(t, b, 0)
	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	require.Len(t, practice.Steps, 1, "the long tone is not for a pad")
	assert.Equal(t, "Rhythm on a note", practice.Steps[0].Name)
	assert.Len(t, practice.Steps[0].Score.Strokes(), 7)
	assert.NotEmpty(t, practice.Care)

	id := newID()
	player.want(201, "POST", "/takes/"+id+"/simulated",
		map[string]any{"step": rhythm.ID, "version": 1, "stand_in": "steady"}, nil)
	player.heard(id)
	player.want(200, "GET", "/practice", nil, &practice)
	assert.Equal(t, verdict.Clean, practice.Steps[0].Result)

	var today board.Today
	director.want(200, "GET", path+"/today", nil, &today)
	assert.Equal(t, "Percussion", today.Sections[len(today.Sections)-1].Name)
}
