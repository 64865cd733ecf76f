package api_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/server/api"
	"earlychorus/server/practicepage"
	"earlychorus/server/store/storetest"
)

// Care is due until it is done, by the player's own word or by a step of the plan, and the
// director sees for whom.
func TestCareIsDueUntilItIsDone(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	step := b.AddStep(t, h.store, exercise.CareStep(exercise.Weekly))
	director, player := h.director(t, b), h.player(t, b, 0)
	due := func(p practicepage.Practice) (out []exercise.Every) {
		for _, c := range p.Care {
			assert.NotEmpty(t, c.Items)
			if c.Now {
				out = append(out, c.Every)
			}
		}
		return out
	}
	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	require.Len(t, practice.Care, 3, "after playing needs no reminding")
	before := due(practice)
	require.Contains(t, before, exercise.Weekly)

	var class api.ClassCare
	director.want(200, "GET", "/classes/"+b.Class.ID+"/care", nil, &class)
	require.Len(t, class.Players, 2)
	assert.Equal(t, 2, class.Count)

	player.want(200, "PUT", "/practice/care/monthly", map[string]any{}, &practice)
	player.want(200, "PUT", "/practice/care/termly", map[string]any{}, &practice)
	assert.Equal(t, []exercise.Every{exercise.Weekly}, due(practice))
	done := make([]bool, len(practice.Steps[1].Score.Items))
	for n := range done {
		done[n] = true
	}
	player.want(200, "PUT", "/practice/steps/"+step.ID+"/ticks", map[string]any{"version": 1, "done": done}, &practice)
	assert.Empty(t, due(practice))
	director.want(200, "GET", "/classes/"+b.Class.ID+"/care", nil, &class)
	require.Len(t, class.Players, 1, "only the other one's")
	player.want(422, "PUT", "/practice/care/yearly", map[string]any{}, nil)
}

// An exercise is kept under its director's name, and a step of it is called so.
func TestAnOwnExerciseKeepsItsName(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "REED"), storetest.NewBand(t, h.store, "BRASS")
	director := h.director(t, b)
	var kept struct{ Exercises []api.OwnExercise }
	body := map[string]any{
		"name":       "Monday glow",
		"kind":       "long-tone-counted",
		"parameters": map[string]any{"notes": []int{0, 4}, "beats": 6},
	}
	director.want(200, "POST", "/exercises", body, &kept)
	director.want(200, "POST", "/exercises", body, &kept)
	require.Len(t, kept.Exercises, 1, "the same name is the same exercise")
	own := kept.Exercises[0]
	assert.Equal(t, "Monday glow", own.Name)
	assert.Contains(t, own.Sentence, "concert B♭ then D, 6 beats each")
	body["parameters"] = map[string]any{"beats": 99}
	director.want(422, "POST", "/exercises", body, nil)
	body["parameters"], body["kind"] = map[string]any{}, "no-such"
	director.want(422, "POST", "/exercises", body, nil)

	item := planItem(own.Kind, own.Parameters)
	item.Called = own.Name
	var plan api.PlanView
	director.want(200, "PUT", "/classes/"+b.Class.ID+"/plans/"+aMonday, change(0, item), &plan)
	assert.Equal(t, "Monday glow", plan.Items[0].Called)
	h.director(t, other).want(404, "DELETE", "/exercises/"+own.ID, nil, nil)
	director.want(200, "DELETE", "/exercises/"+own.ID, nil, &kept)
	assert.Empty(t, kept.Exercises)
}
