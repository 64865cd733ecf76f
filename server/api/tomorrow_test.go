package api_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/core/measure"
	"earlychorus/core/plan"
	"earlychorus/core/verdict"
	"earlychorus/server/api"
	"earlychorus/server/board"
	"earlychorus/server/listening"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// sharing makes a class of six clarinets and a trombone of which five clarinets share
// a fault today, each twice.
func sharing(t *testing.T, h *testServer, code string, fault measure.Cause) (b storetest.Band, broken []string) {
	t.Helper()
	b = storetest.NewBand(t, h.store, code)
	b.Join(t, h.store, "clarinet", 5)
	now := time.Now()
	for n, p := range b.Players {
		word, cause := verdict.NotYet, fault
		if p.Instrument != "clarinet" || n == 2 {
			word, cause = verdict.Clean, ""
		}
		b.Play(t, h.store, storetest.Played{
			Player: n,
			Step:   b.Step,
			At:     now.Add(-2 * time.Second),
			Result: word,
			Cause:  cause,
		})
		id := b.Play(t, h.store, storetest.Played{
			Player: n,
			Step:   b.Step,
			At:     now.Add(-time.Second),
			Result: word,
			Cause:  cause,
		})
		if cause != "" {
			broken = append(broken, id)
		}
	}
	return b, broken
}

// What a section has in common is said on the board with its count, and opens the
// latest take of each.
func TestWhatASectionSharesIsSaidOnTheBoard(t *testing.T) {
	h := newServer(t)
	b, broken := sharing(t, h, "SHARE", measure.CauseBreak)
	director := h.director(t, b)
	var today board.Today
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &today)
	require.Len(t, today.Common, 1)
	c := today.Common[0]
	assert.Equal(t, "5 of 6 clarinets jumped to another partial on C: Long tone, counted.", c.Sentence)
	assert.ElementsMatch(t, broken, c.Takes)
	assert.Equal(t, map[string]int{"clean": 2, "not-yet": 5}, today.Steps[0].Results)

	// The director's word counts in it.
	for _, id := range broken[:3] {
		director.want(
			200,
			"PUT",
			"/takes/"+id+"/acts/"+newID(),
			map[string]any{"kind": "overrule", "result": "clean"},
			nil,
		)
	}
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &today)
	assert.Empty(t, today.Common, "two of six are not in common")
}

// Tomorrow brings what most need, with the reason, and one press plans it for that
// day alone; a second finds nothing left to propose.
func TestTomorrowBringsWhatMostNeed(t *testing.T) {
	h := newServer(t)
	b, _ := sharing(t, h, "NEED", measure.CauseEnding)
	director := h.director(t, b)
	path := "/classes/" + b.Class.ID + "/tomorrow"
	var before, after api.Tomorrow
	director.want(200, "GET", path, nil, &before)
	fresh := slices.IndexFunc(before.Steps, func(s api.TomorrowStep) bool { return s.New })
	require.GreaterOrEqual(t, fresh, 0)
	assert.Contains(t, before.Steps[fresh].Reason, "with 5 of 6 players")
	director.want(200, "POST", path, nil, &after)
	assert.Len(t, after.Steps, len(before.Steps))
	for _, s := range after.Steps {
		assert.False(t, s.New, s.Name)
	}

	day, err := time.Parse(time.DateOnly, before.Day)
	require.NoError(t, err)
	_, items, err := h.store.PlanOf(t.Context(), b.Class.ID, store.Monday(day))
	require.NoError(t, err)
	weekday := plan.Day((int(day.Weekday()) + 6) % 7)
	planned := slices.IndexFunc(items, func(i plan.Item) bool { return i.Step.Kind.Name == before.Steps[fresh].Name })
	require.GreaterOrEqual(t, planned, 0)
	assert.Equal(t, plan.On(weekday), items[planned].Days, "on that day and no other")
	assert.Equal(t, plan.InClass, items[planned].At)

	count := len(items)
	director.want(200, "POST", path, nil, &after)
	_, items, err = h.store.PlanOf(t.Context(), b.Class.ID, store.Monday(day))
	require.NoError(t, err)
	assert.Len(t, items, count, "pressing twice plans once")
	h.director(t, storetest.NewBand(t, h.store, "OTHERS")).want(404, "POST", path, nil, nil)
}

// What would help and asks too much of the lips is not proposed, and the reason is
// said.
func TestWhatWouldHelpButDoesNotFitIsSaid(t *testing.T) {
	h := newServer(t)
	b, _ := sharing(t, h, "HIGH", measure.CauseBreak)
	var tomorrow api.Tomorrow
	h.director(t, b).want(200, "GET", "/classes/"+b.Class.ID+"/tomorrow", nil, &tomorrow)
	assert.False(t, slices.ContainsFunc(tomorrow.Steps, func(s api.TomorrowStep) bool { return s.New }))
	require.Len(t, tomorrow.Unfit, 1)
	assert.Equal(t, "Register pair", tomorrow.Unfit[0].Name)
	assert.Contains(t, tomorrow.Unfit[0].Reason, "5 of 6 players")
	assert.Contains(t, tomorrow.Unfit[0].Why, "would play high")
}

// Where the minutes do not suffice, what is left out is said, and stays on its
// other days.
func TestTomorrowSaysWhatItLeavesOut(t *testing.T) {
	h := newServer(t)
	b, _ := sharing(t, h, "TIGHT", measure.CauseEnding)
	_, err := h.store.SQL().ExecContext(t.Context(), "UPDATE class SET class_minutes = 1 WHERE id = $1", b.Class.ID)
	require.NoError(t, err)
	director := h.director(t, b)
	path := "/classes/" + b.Class.ID + "/tomorrow"
	var before api.Tomorrow
	director.want(200, "GET", path, nil, &before)
	day, err := time.Parse(time.DateOnly, before.Day)
	require.NoError(t, err)
	if store.Monday(day).Equal(store.Monday(b.Class.Day(time.Now()))) { // next week's plan is another, and empty
		for _, kind := range []string{"scale", "swell", "rhythm-on-a-note"} {
			b.AddStep(t, h.store, exercise.New(kind, nil))
		}
		director.want(200, "GET", path, nil, &before)
		require.NotEmpty(t, before.LeftOut)
		assert.LessOrEqual(t, float64(before.Total), 60.5)
		director.want(200, "POST", path, nil, nil)
		_, items, err := h.store.PlanOf(t.Context(), b.Class.ID, store.Monday(day))
		require.NoError(t, err)
		weekday := plan.Day((int(day.Weekday()) + 6) % 7)
		for _, name := range before.LeftOut {
			n := slices.IndexFunc(items, func(i plan.Item) bool { return i.Step.Kind.Name == name })
			require.GreaterOrEqual(t, n, 0, name)
			assert.False(t, items[n].Days.Has(weekday), name)
			assert.NotZero(t, items[n].Days, name)
		}
		var after api.Tomorrow
		director.want(200, "GET", path, nil, &after)
		assert.Empty(t, after.LeftOut)
	}
}

// Whom to hear first follows the reasons: of six clarinets those who broke, two takes
// of a player at most, and never more than fits.
func TestWhomToHearFirst(t *testing.T) {
	h := newServer(t)
	b, broken := sharing(t, h, "FIRST", measure.CauseBreak)
	director := h.director(t, b)
	player := h.player(t, b, 1)
	player.want(204, "PUT", "/practice/flags/"+newID(), map[string]any{"kind": "hurts", "words": ""}, nil)
	var l listening.ListeningView
	director.want(200, "GET", "/classes/"+b.Class.ID+"/listening?minutes=3&afresh=true", nil, &l)
	require.NotEmpty(t, l.Excerpts)
	assert.Equal(t, b.Players[1].ID, l.Excerpts[0].Player, "pain first")
	seconds := 0.0
	for _, e := range l.Excerpts {
		seconds += float64(e.To-e.From) + 4
		assert.NotEmpty(t, e.Why)
	}
	assert.LessOrEqual(t, seconds, 180.0)
	heard := []string{}
	for _, e := range l.Excerpts[1:] {
		heard = append(heard, e.Take)
	}
	assert.Subset(t, broken, heard)
}

// A question is heard with the take it is about, and who is stuck on a ladder with
// a take of that ladder.
func TestReasonsGoWithTheTakesTheyAreAbout(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "ABOUT")
	rungs := b.AddStep(t, h.store, exercise.New(exercise.KindLadder, map[string]any{"ladder": "clarinet-break"}))
	other := b.AddStep(t, h.store, exercise.New("tuning-note", nil))
	now := time.Now()
	takes := map[string]string{}
	for n, s := range []store.Step{b.Step, rungs, other} {
		takes[s.ID] = b.Play(
			t,
			h.store,
			storetest.Played{Step: s, At: now.Add(time.Duration(n-10) * time.Second), Result: verdict.Nearly},
		)
	}
	require.NoError(t, h.store.AddLadderEntry(t.Context(), store.LadderEntry{
		PlayerID: b.Players[0].ID,
		Ladder:   "clarinet-break",
		What:     ladder.SteppedBack,
		Day:      b.Class.Day(now),
		At:       now,
	}))
	player := h.player(t, b, 0)
	player.want(
		204,
		"PUT",
		"/practice/flags/"+newID(),
		map[string]any{"kind": "question", "words": "Higher or lower?", "step": other.ID},
		nil,
	)

	var l listening.ListeningView
	h.director(t, b).want(200, "GET", "/classes/"+b.Class.ID+"/listening?minutes=5&afresh=true", nil, &l)
	why := map[string][]string{}
	for _, e := range l.Excerpts {
		for _, w := range e.Why {
			why[e.Take] = append(why[e.Take], w.Text)
		}
	}
	assert.Equal(t, []string{"asks: Higher or lower?"}, why[takes[other.ID]])
	assert.Equal(t, []string{"was led back on a ladder"}, why[takes[rungs.ID]])
	assert.NotContains(t, why, takes[b.Step.ID], "nothing is new about it")
}
