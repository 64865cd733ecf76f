package api_test

import (
	"archive/zip"
	"bytes"
	"io"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/playtest"
	"earlychorus/core/verdict"
	"earlychorus/server/api"
	"earlychorus/server/board"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// A test is open to the day it is due, its results stand on a page of their own, and they go
// into the gradebook.
func TestATestIsHandedIn(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "TESTED")
	director, player := h.director(t, b), h.player(t, b, 0)
	today := b.Class.Day(time.Now())
	monday := store.Monday(today)
	plan := "/classes/" + b.Class.ID + "/plans/" + monday.Format(time.DateOnly)
	var week api.PlanView
	director.want(200, "GET", plan, nil, &week)
	test := planItem("long-tone-counted", nil)
	test.Days = []string{"MO"}
	test.Test = &playtest.Test{Due: monday.AddDate(0, 0, 90).Format(time.DateOnly), Takes: 2, Counts: playtest.Best}
	director.want(422, "PUT", plan, change(week.Revision, append(week.Items, test)...), nil)
	test.Test.Due = monday.AddDate(0, 0, 9).Format(time.DateOnly)
	director.want(200, "PUT", plan, change(week.Revision, append(week.Items, test)...), &week)

	var page practicepage.Practice
	player.want(200, "GET", "/practice", nil, &page)
	require.Len(t, page.Steps, 2, "open on days it is not planned for")
	require.NotNil(t, page.Steps[1].Test)
	assert.Equal(t, 0, page.Steps[1].Test.Used)
	step, err := h.store.StepOfClass(t.Context(), b.Class.ID, test.Key)
	require.NoError(t, err)
	for n, r := range []verdict.Result{verdict.NotYet, verdict.Nearly, verdict.Clean} {
		b.Play(
			t,
			h.store,
			storetest.Played{Step: step, At: time.Now().Add(time.Duration(n-9) * time.Second), Result: r},
		)
	}
	player.want(200, "GET", "/practice", nil, &page)
	assert.Equal(t, 2, page.Steps[1].Test.Used)
	assert.Equal(t, verdict.Nearly, page.Steps[1].Test.Result, "the third take is practice")

	var list struct{ Tests []api.TestLine }
	tests := "/classes/" + b.Class.ID + "/tests"
	director.want(200, "GET", tests, nil, &list)
	require.Len(t, list.Tests, 1)
	assert.Equal(t, [2]int{1, 2}, [2]int{list.Tests[0].HandedIn, list.Tests[0].Of})
	var results api.TestView
	director.want(200, "GET", tests+"/"+test.Key, nil, &results)
	assert.Len(t, results.Players[0].Takes, 3)
	assert.Equal(t, verdict.Nearly, results.Players[0].Result)
	assert.Zero(t, results.Players[1].Used)
	var board board.Today
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &board)
	assert.Len(t, board.Steps, 1, "a test is no column of one day")

	res, csv := director.ask("GET", tests+"/"+test.Key+"/results.csv", nil)
	assert.Equal(t, 200, res.StatusCode)
	assert.Contains(t, string(csv), "nearly,2,3,3")
	_, archive := director.ask("GET", "/classes/"+b.Class.ID+"/gradebook.zip", nil)
	files, err := zip.NewReader(bytes.NewReader(archive), int64(len(archive)))
	require.NoError(t, err)
	items, err := files.Open("lineItems.csv")
	require.NoError(t, err)
	body, err := io.ReadAll(items)
	require.NoError(t, err)
	assert.Contains(t, string(body), test.Key)

	stranger := storetest.NewBand(t, h.store, "UNTESTED")
	h.director(t, stranger).want(404, "GET", tests+"/"+test.Key, nil, nil)
	director.want(404, "GET", tests+"/"+b.Step.ID, nil, nil)
	player.want(404, "GET", tests, nil, nil)
}
