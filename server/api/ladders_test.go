package api_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/core/measure"
	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/growth"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// climbing lets a simulated player play the second step and waits for the word.
func climbing(v visitor, step store.Step, standIn string) practicepage.Practice {
	id := newID()
	v.want(
		201,
		"POST",
		"/takes/"+id+"/simulated",
		map[string]any{"step": step.ID, "version": 1, "stand_in": standIn},
		nil,
	)
	v.heard(id)
	var practice practicepage.Practice
	v.want(200, "GET", "/practice", nil, &practice)
	return practice
}

func TestALadderIsClimbedAndLedBackFrom(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	step := b.AddStep(t, h.store, exercise.New("ladder", map[string]any{"ladder": "clarinet-break", "tempo_bpm": 120}))
	player := h.player(t, b, 0)
	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	require.Len(t, practice.Steps, 2)
	require.NotNil(t, practice.Steps[1].Ladder)
	assert.Equal(t, 1, practice.Steps[1].Ladder.Rung)
	assert.Equal(t, 3, practice.Steps[1].Ladder.Needs)
	assert.Equal(t, "low C to low G and back", practice.Steps[1].Ladder.Rungs[0])

	for n := range 3 {
		practice = climbing(player, step, "steady")
		if n < 2 {
			assert.Equal(t, 2-n, practice.Steps[1].Ladder.Needs)
		}
	}
	assert.Equal(t, 2, practice.Steps[1].Ladder.Rung)
	assert.Equal(t, 3, practice.Steps[1].Ladder.Tries)
	assert.True(t, practice.Steps[1].Ladder.Passed[0])
	assert.Equal(t, 2, practice.Steps[1].Score.Rung, "the step is laid out at the player's own rung")
	assert.Equal(
		t,
		[]string{"C4", "G3"},
		[]string{practice.Steps[1].Score.Targets()[0].WrittenName, practice.Steps[1].Score.Targets()[1].WrittenName},
	)

	act := newID()
	for range 2 { // asking again is harmless
		player.want(200, "PUT", "/practice/ladders/clarinet-break/back/"+act, map[string]any{}, &practice)
		assert.Equal(t, 1, practice.Steps[1].Ladder.Rung)
	}
	player.want(404, "PUT", "/practice/ladders/to-the-moon/back/"+newID(), map[string]any{}, nil)

	// Somebody who slipped is suggested the ladder again.
	var out struct{ Suggestions []api.SuggestionView }
	h.director(t, b).
		want(
			200,
			"GET",
			"/classes/"+b.Class.ID+"/plans/"+store.Monday(b.Class.Day(time.Now())).Format(time.DateOnly)+"/suggestions",
			nil,
			&out,
		)
	require.Len(t, out.Suggestions, 1)
	assert.Equal(t, "ladder", out.Suggestions[0].Item.Kind)

	// The other player, on the trombone, has no use for it, and is told so.
	var other practicepage.Practice
	h.player(t, b, 1).want(200, "GET", "/practice", nil, &other)
	assert.Nil(t, other.Steps[1].Ladder)
	assert.Contains(t, other.Steps[1].Score.Notices[0], "has no use for")
}

func TestTheBestHoldIsKept(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	step := b.AddStep(t, h.store, exercise.New("long-tone-longest", map[string]any{"cap_s": 10}))
	practice := climbing(h.player(t, b, 0), step, "steady")
	assert.InDelta(t, 10, practice.Steps[1].Best, 0.3)
	for _, r := range practice.Steps[1].Score.Rules {
		if r.Measure == measure.HoldTime.Key {
			assert.InDelta(t, 9, r.Limit, 0.3, "within a tenth of one's own best")
		}
	}
	h.player(t, b, 0).playedAs(b, synth.Player{}) // a counted one is shorter, and changes nothing
	var g growth.GrowthView
	h.director(t, b).want(200, "GET", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID+"/growth", nil, &g)
	require.Len(t, g.Weeks, 1)
	assert.InDelta(t, 10, g.Weeks[0].BestHold, 0.3)
	assert.Equal(t, "1 day so far: too few to say.", g.Hold.Says)
}

// A player's page tells the way up a ladder as its log has it.
func TestTheWayUpALadderIsTold(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "WAY")
	step := b.AddStep(t, h.store, exercise.New(exercise.KindLadder, map[string]any{"ladder": "clarinet-break"}))
	player := h.player(t, b, 0)
	for range 3 {
		climbing(player, step, "steady")
	}
	today := b.Class.Day(time.Now()).Format(time.DateOnly)
	player.want(200, "PUT", "/practice/ladders/clarinet-break/back/"+newID(), map[string]any{}, nil)
	var g growth.GrowthView
	h.director(t, b).want(200, "GET", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID+"/growth", nil, &g)
	require.Len(t, g.Ladders, 1)
	assert.Equal(t, 1, g.Ladders[0].Rung)
	assert.Equal(t, []ladder.Turn{{
		Day:  today,
		Move: ladder.Up,
		From: 1,
		Rung: 2,
	}, {
		Day:  today,
		Move: ladder.Back,
		From: 2,
		Rung: 1,
	}}, g.Ladders[0].History)
	assert.Equal(t, today, g.Today)
}

func TestWhatHurtsReachesTheDirector(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director, player := h.director(t, b), h.player(t, b, 0)
	question, pain := newID(), newID()
	player.want(
		204,
		"PUT",
		"/practice/flags/"+question,
		map[string]string{"kind": "question", "words": "Which thumb?", "step": b.Step.ID},
		nil,
	)
	player.want(204, "PUT", "/practice/flags/"+pain, map[string]string{"kind": "hurts", "words": ""}, nil)
	player.want(204, "PUT", "/practice/flags/"+pain, map[string]string{"kind": "hurts", "words": ""}, nil)
	player.want(422, "PUT", "/practice/flags/"+newID(), map[string]string{"kind": "question", "words": ""}, nil)
	var open struct{ Flags []api.FlagView }
	path := "/classes/" + b.Class.ID + "/flags"
	director.want(200, "GET", path, nil, &open)
	require.Len(t, open.Flags, 2)
	assert.Equal(t, store.Hurts, open.Flags[0].Kind, "pain first")
	assert.Equal(t, "Which thumb?", open.Flags[1].Words)
	director.want(200, "PUT", path+"/"+pain+"/seen", nil, &open)
	assert.Len(t, open.Flags, 1)
	other := storetest.NewBand(t, h.store, "BRASS")
	h.director(t, other).want(404, "PUT", path+"/"+question+"/seen", nil, nil)
}

// A question is answered where it stands, and its player, and nobody else, reads the answer.
func TestAQuestionIsAnswered(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director, player := h.director(t, b), h.player(t, b, 0)
	question := newID()
	asks := map[string]string{"kind": "question", "words": "Which thumb?"}
	player.want(204, "PUT", "/practice/flags/"+question, asks, nil)
	path := "/classes/" + b.Class.ID + "/flags/" + question + "/answer"
	director.want(422, "PUT", path, map[string]string{"words": "  "}, nil)
	var open struct{ Flags []api.FlagView }
	director.want(200, "PUT", path, map[string]string{"words": "The left one."}, &open)
	assert.Empty(t, open.Flags, "what is answered is seen")
	var page practicepage.Practice
	player.want(200, "GET", "/practice", nil, &page)
	require.Len(t, page.Answers, 1)
	assert.Equal(t, "Which thumb?", page.Answers[0].Asked)
	assert.Equal(t, "The left one.", page.Answers[0].Answer)
	h.player(t, b, 1).want(200, "GET", "/practice", nil, &page)
	assert.Empty(t, page.Answers)
	other := storetest.NewBand(t, h.store, "BRASS")
	h.director(t, other).want(404, "PUT", path, map[string]string{"words": "No."}, nil)
}
