package api_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/synth"
	"earlychorus/server/practicepage"
	"earlychorus/server/store/storetest"
)

// A clarinet's low start takes turns from take to take: the device says which turn it was,
// and the take keeps the fingers that were shown.
func TestALowStartTakesTurns(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	b.Step = b.AddStep(t, h.store, exercise.New("long-tone-counted", map[string]any{
		"written": []string{"E3"}, "notes": []int{0}, "beats": 2, "tempo_bpm": 120,
	}))
	player := h.player(t, b, 0)
	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	require.True(t, practice.Steps[1].Score.Alternates)
	assert.False(t, practice.Steps[0].Score.Alternates)
	for turn, hand := range []string{"(left)", "(right)"} {
		id := newID()
		path := fmt.Sprintf("/takes/%s?step=%s&version=1&source=microphone&start_ms=0&repeat=%d", id, b.Step.ID, turn)
		res, answer := player.ask("PUT", path, played(t, synth.Player{}))
		require.Equal(t, 201, res.StatusCode, string(answer))
		take := player.heard(id)
		assert.Contains(t, take.Score.Targets()[0].Fingering.Text, hand)
	}
	res, _ := player.ask(
		"PUT",
		"/takes/"+newID()+"?step="+b.Step.ID+"&version=1&source=microphone&start_ms=0&repeat=-1",
		nil,
	)
	assert.Equal(t, 422, res.StatusCode)
}
