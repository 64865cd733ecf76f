package api_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/measure"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/api"
	"earlychorus/server/board"
	"earlychorus/server/practicepage"
	"earlychorus/server/store/storetest"
)

func TestStepsThatAreTickedAreNotRecorded(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	step := b.AddStep(t, h.store, exercise.New("set-up", nil))
	director, player := h.director(t, b), h.player(t, b, 0)

	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	require.Len(t, practice.Steps, 2)
	items := len(practice.Steps[1].Score.Items)
	assert.Len(t, practice.Steps[1].Ticked, items)

	done := make([]bool, items)
	path := "/practice/steps/" + step.ID + "/ticks"
	for n := range done {
		done[n] = n > 0
	}
	player.want(200, "PUT", path, map[string]any{"version": 1, "done": done}, &practice)
	assert.Equal(t, verdict.Nearly, practice.Steps[1].Result)
	done[0] = true
	player.want(200, "PUT", path, map[string]any{"version": 1, "done": done}, &practice)
	assert.Equal(t, verdict.Clean, practice.Steps[1].Result, "a later word takes the place of an earlier one")

	var today board.Today
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &today)
	assert.Equal(t, map[string]int{"clean": 1, "missing": 1}, today.Steps[1].Results)

	player.want(422, "PUT", path, map[string]any{"version": 1, "done": []bool{true}}, nil)
	player.want(404, "PUT", path, map[string]any{"version": 9, "done": done}, nil)
	b.Step = step
	status, answer := player.upload(b, newID(), "microphone", 1, played(t, synth.Player{}))
	assert.Equal(t, 422, status)
	assert.Contains(t, answer, "not recorded")
}

func TestStepsAreForWhomTheySuit(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED") // a clarinet and a trombone
	b.AddStep(t, h.store, exercise.New("buzz-at-once", nil))
	b.AddStep(t, h.store, exercise.New("scale", nil), "clarinet")
	names := func(who int) (out []string) {
		var practice practicepage.Practice
		h.player(t, b, who).want(200, "GET", "/practice", nil, &practice)
		for _, s := range practice.Steps {
			out = append(out, s.Name)
		}
		return out
	}
	assert.Equal(t, []string{"Long tone, counted", "Scale or arpeggio"}, names(0))
	assert.Equal(t, []string{"Long tone, counted", "Buzz at once"}, names(1))

	var today board.Today
	h.director(t, b).want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &today)
	states := map[string][]string{}
	for _, s := range today.Sections {
		for _, p := range s.Players {
			for _, c := range p.Cells {
				states[p.Instrument] = append(states[p.Instrument], string(c.State))
			}
		}
	}
	assert.Equal(t, []string{"missing", "not-asked", "missing"}, states["B♭ clarinet"])
}

func TestTheCatalogueDescribesItsEditors(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	var catalogue struct{ Kinds []exercise.Kind }
	director.want(200, "GET", "/catalogue", nil, &catalogue)
	assert.Len(t, catalogue.Kinds, len(exercise.Catalogue()))

	preview := func(status int, kind string, parameters map[string]any) api.StepDetail {
		var detail api.StepDetail
		director.want(
			status,
			"POST",
			"/classes/"+b.Class.ID+"/steps/preview",
			map[string]any{"kind": kind, "parameters": parameters},
			&detail,
		)
		return detail
	}
	buzz := preview(200, "buzz-at-once", map[string]any{"repeats": 2})
	assert.Equal(t, []string{"B♭ clarinet"}, buzz.LeftOut)
	assert.Len(t, buzz.Written, 1)
	assert.Equal(t, 4., buzz.Parameters["beats"], "what is left out takes its default")
	preview(422, "warble", nil)
	preview(422, "buzz-at-once", map[string]any{"repeats": 99})
	preview(422, "buzz-at-once", map[string]any{"colour": "red"})
}

func TestTheAirMeterHasAStandIn(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	step := b.AddStep(t, h.store, exercise.New("air-meter", nil))
	player := h.player(t, b, 0)
	path := "/practice/steps/" + step.ID + "/blown"
	var blown api.Blown
	player.want(200, "PUT", path, map[string]any{"version": 1, "stand_in": "late", "seed": 7}, &blown)
	assert.Equal(t, measure.CauseMeterDelay, blown.Verdict.Deciding.Cause)
	assert.Len(t, blown.Blows, 4)
	assert.Greater(t, blown.Blows[0].Delay, blown.Blows[3].Delay, "and learning")
	player.want(200, "PUT", path, map[string]any{"version": 1, "stand_in": "prompt", "seed": 8}, &blown)
	assert.Equal(t, verdict.Clean, blown.Verdict.Result)
	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	assert.Equal(t, verdict.Clean, practice.Steps[1].Result)
	player.want(422, "PUT", path, map[string]any{"version": 1, "stand_in": "whale", "seed": 9}, nil)
	player.want(
		422,
		"PUT",
		"/practice/steps/"+b.Step.ID+"/blown",
		map[string]any{"version": 1, "stand_in": "late", "seed": 7},
		nil,
	)
}
