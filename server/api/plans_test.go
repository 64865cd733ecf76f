package api_test

import (
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/board"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
	"earlychorus/server/view"
)

func planItem(kind string, parameters map[string]any) api.PlanItem {
	if parameters == nil {
		parameters = map[string]any{}
	}
	return api.PlanItem{
		Key:        newID(),
		Kind:       kind,
		Parameters: parameters,
		Times:      1,
		Days:       []string{"MO", "TU", "WE", "TH", "FR", "SA", "SU"},
		At:         plan.Both,
		Wanted:     2,
		For:        []string{},
	}
}

func change(based int, items ...api.PlanItem) map[string]any {
	return map[string]any{"based_on_revision": based, "name": "The week", "items": append([]api.PlanItem{}, items...)}
}

const aMonday = "2026-03-02"

func TestTwoDirectorsChangeOneWeek(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	one := h.director(t, b)
	path := "/classes/" + b.Class.ID + "/plans/" + aMonday
	var week api.PlanView
	one.want(200, "GET", path, nil, &week)
	assert.Equal(t, 0, week.Revision)
	swell, scale := planItem("swell", nil), planItem("scale", nil)
	one.want(200, "PUT", path, change(0, swell, scale), &week)
	require.Equal(t, 1, week.Revision)

	// The class is shared with a colleague.
	colleague := storetest.NewBand(t, h.store, "BRASS")
	two := h.director(t, colleague)
	two.want(404, "GET", path, nil, nil)
	one.want(
		200,
		"POST",
		"/classes/"+b.Class.ID+"/directors",
		map[string]string{"email": " " + strings.ToUpper(colleague.Director.Email)},
		nil,
	)
	two.want(404, "GET", path, nil, nil)
	two.want(200, "POST", "/invitations/"+b.Class.ID, nil, nil)

	// The other's laptop was closed meanwhile, and still has revision 1.
	mine := change(1, swell, scale, planItem("echo", nil))
	scale.Times = 3
	one.want(200, "PUT", path, change(1, swell, scale), &week)
	var merged api.PlanView
	two.want(200, "PUT", path, mine, &merged)
	assert.True(t, merged.Merged)
	require.Len(t, merged.Items, 3)
	assert.Equal(t, 3, merged.Items[1].Times, "theirs")
	assert.Equal(t, "echo", merged.Items[2].Kind, "mine")

	scale.Times = 5
	res, answer := two.ask("PUT", path, change(1, swell, scale))
	assert.Equal(t, 409, res.StatusCode)
	assert.Contains(t, string(answer), "Scale or arpeggio was changed by both of you.")
	assert.Contains(t, string(answer), b.Director.Name)
	one.want(200, "GET", path, nil, &week)
	assert.Equal(t, 3, week.Items[1].Times, "nothing was overwritten")
	assert.Len(t, week.History, 3)

	swell.Kind = "care"
	res, answer = one.ask("PUT", path, change(week.Revision, swell))
	assert.Equal(t, 409, res.StatusCode, string(answer))
	one.want(422, "PUT", path, change(week.Revision, planItem("warble", nil)), nil)
	one.want(422, "PUT", "/classes/"+b.Class.ID+"/plans/2026-03-03", change(0), nil)
}

func TestAStepThatWasPlayedStaysKnown(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director, player := h.director(t, b), h.player(t, b, 0)
	id := newID()
	status, _ := player.upload(b, id, "microphone", 1, played(t, synth.Player{}))
	require.Equal(t, 201, status)
	player.heard(id)

	path := "/classes/" + b.Class.ID + "/plans/" + store.Monday(b.Class.Day(time.Now())).Format(time.DateOnly)
	var week api.PlanView
	director.want(200, "GET", path, nil, &week)
	kept := week.Items[0]
	director.want(200, "PUT", path, change(week.Revision), &week)
	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	assert.Empty(t, practice.Steps)
	var take api.TakeDetail
	director.want(200, "GET", "/takes/"+id, nil, &take)
	assert.Equal(t, view.Done, take.State, "the take is where it was")

	// Undone: the step is back with what was played.
	director.want(200, "PUT", path, change(week.Revision, kept), &week)
	player.want(200, "GET", "/practice", nil, &practice)
	require.Len(t, practice.Steps, 1)
	assert.Len(t, practice.Steps[0].Takes, 1)
}

func TestADayIsAddedUpFittedAndOrdered(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	day := func(minutes float64, items ...api.PlanItem) map[string]any {
		return map[string]any{"items": items, "at": "class", "minutes": minutes}
	}
	walk, long, buzz := planItem(
		"five-note-walk",
		nil,
	), planItem(
		"long-tone-counted",
		nil,
	), planItem(
		"buzz-at-once",
		nil,
	)
	var work api.DayWork
	director.want(200, "POST", "/classes/"+b.Class.ID+"/days/work", day(0, walk, long, buzz), &work)
	require.Len(t, work.Items, 3)
	assert.Equal(t, []string{buzz.Key, long.Key, walk.Key}, work.Order)
	assert.Equal(t, []string{"Clarinets"}, work.Items[2].LeftOut)
	require.Len(t, work.Sections, 2)
	assert.InDelta(t, 360, float64(work.Budget), 1e-9)
	assert.Positive(t, float64(work.Sections[1].Load.Lip))
	assert.Empty(t, work.Over)
	assert.NotEmpty(t, work.Reason)

	var fitted api.FittedDay
	director.want(200, "POST", "/classes/"+b.Class.ID+"/days/fit", day(1.5, walk, long, buzz), &fitted)
	assert.LessOrEqual(t, float64(fitted.Total), 90.5)
	require.NotEmpty(t, fitted.Cuts)
	assert.NotEmpty(t, fitted.Cuts[0].Why)
	director.want(422, "POST", "/classes/"+b.Class.ID+"/days/fit", day(99, walk), nil)
}

func TestAStepIsDrawnAndSoundsForAnyInstrument(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	ask := map[string]any{
		"kind":       "long-tone-counted",
		"parameters": map[string]any{"notes": []int{0}},
		"instrument": "alto-sax",
		"variant":    "",
		"stage":      2,
	}
	var drawn api.StepNotation
	director.want(200, "POST", "/classes/"+b.Class.ID+"/steps/notation", ask, &drawn)
	assert.Equal(t, "G4", drawn.Score.Targets()[0].WrittenName)
	assert.NotEmpty(t, drawn.Bars)
	ask["kind"] = "buzz-at-once"
	ask["parameters"] = map[string]any{}
	director.want(200, "POST", "/classes/"+b.Class.ID+"/steps/notation", ask, &drawn)
	assert.False(t, drawn.Suits)
	ask["instrument"] = "kazoo"
	director.want(422, "POST", "/classes/"+b.Class.ID+"/steps/notation", ask, nil)

	q := url.Values{"kind": {"scale"}, "parameters": {"{}"}, "instrument": {"tuba"}, "stage": {"3"}}
	res, sound := director.ask("GET", "/classes/"+b.Class.ID+"/steps/sound.wav?"+q.Encode(), nil)
	assert.Equal(t, 200, res.StatusCode)
	assert.Equal(t, "RIFF", string(sound[:4]))
}

func TestTemplatesAreADirectorsOwn(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "REED"), storetest.NewBand(t, h.store, "BRASS")
	director := h.director(t, b)
	var kept struct{ Templates []api.Template }
	director.want(
		200,
		"POST",
		"/templates",
		map[string]any{"name": "Before concerts", "items": []api.PlanItem{planItem("swell", nil)}},
		&kept,
	)
	require.Len(t, kept.Templates, 1+2, "two weeks are ready")
	id := kept.Templates[0].ID
	h.director(t, other).want(404, "DELETE", "/templates/"+id, nil, nil)
	director.want(200, "DELETE", "/templates/"+id, nil, &kept)
	assert.Len(t, kept.Templates, 2)
}

func TestNextWeekIsSuggestedFromWhatWasHeard(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	wavers := map[string]any{"step": b.Step.ID, "version": 1, "stand_in": "wavering"}
	for n := range 6 {
		id := newID()
		player := h.player(t, b, n%2)
		player.want(201, "POST", "/takes/"+id+"/simulated", wavers, nil)
		player.heard(id)
	}
	next := store.Monday(b.Class.Day(time.Now())).AddDate(0, 0, 7).Format(time.DateOnly)
	var out struct {
		Suggestions []api.SuggestionView
		Heard       int
	}
	director.want(200, "GET", "/classes/"+b.Class.ID+"/plans/"+next+"/suggestions", nil, &out)
	assert.Equal(t, 6, out.Heard)
	assert.Empty(t, out.Suggestions, "three takes of a section are too few to say")
}

func TestWhoIsExcusedIsAskedForNothing(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	day := b.Class.Day(time.Now())
	require.NoError(t, h.store.AddException(t.Context(), store.Exception{
		ID:       newID(),
		PlayerID: b.Players[0].ID,
		FirstDay: day,
		LastDay:  day,
	}))
	var practice practicepage.Practice
	h.player(t, b, 0).want(200, "GET", "/practice", nil, &practice)
	assert.Empty(t, practice.Steps)
	h.player(t, b, 1).want(200, "GET", "/practice", nil, &practice)
	assert.Len(t, practice.Steps, 1)
	var today board.Today
	h.director(t, b).want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &today)
	assert.Equal(t, board.Excused, today.Sections[0].Players[0].Cells[0].State)
}

func TestStagesGoByTheWeek(t *testing.T) {
	lesson := time.Date(2026, 9, 2, 0, 0, 0, 0, time.UTC) // a Wednesday
	class := store.Class{FirstLesson: &lesson}
	for day, want := range map[string]scores.Stage{
		"2026-09-02": 1, "2026-09-27": 1, "2026-09-28": 2, "2026-11-01": 2, "2026-11-02": 3, "2027-01-03": 3,
		"2027-01-04": 4,
	} {
		at, err := time.Parse(time.DateOnly, day)
		require.NoError(t, err)
		assert.Equal(t, want, class.StageOn(at), day)
	}
}
