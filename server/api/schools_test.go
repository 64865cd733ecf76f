package api_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/api"
	"earlychorus/server/store/storetest"
)

// An administrator adds people, gives one a new password, names another administrator and
// takes somebody out; a director who administers nothing may none of it.
func TestASchoolIsAdministered(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "REED"), storetest.NewBand(t, h.store, "BRASS")
	admin, stranger := h.director(t, b), h.director(t, other)
	path := "/schools/" + b.Class.SchoolID
	var me api.Me
	admin.want(200, "GET", "/me", nil, &me)
	require.Len(t, me.Schools, 1)

	var page api.SchoolPage
	admin.want(200, "GET", path, nil, &page)
	require.Len(t, page.People, 1)
	assert.True(t, page.People[0].You)
	assert.Equal(t, 1, page.State.Classes)
	assert.Positive(t, page.State.Database)
	stranger.want(404, "GET", path, nil, nil)

	body := map[string]any{"name": "Tobin Reef", "email": "Tobin@reef.example", "administers": false}
	admin.want(200, "POST", path+"/people", body, &page)
	require.Len(t, page.People, 2)
	word := page.Password
	assert.Equal(t, "Tobin Reef", page.For)
	admin.want(422, "POST", path+"/people", body, nil)
	stranger.want(
		404,
		"POST",
		path+"/people",
		map[string]any{"name": "x", "email": "x@y.example", "administers": false},
		nil,
	)
	tobin := h.visitor(t)
	require.Equal(t, 200, tobin.password("tobin@reef.example", word))
	tobin.want(404, "GET", path, nil, nil)

	who := page.People[0].ID
	if page.People[0].You {
		who = page.People[1].ID
	}
	admin.want(200, "POST", path+"/people/"+who+"/password", nil, &page)
	assert.NotEqual(t, word, page.Password)
	tobin.want(401, "GET", "/classes", nil, nil)
	admin.want(200, "PUT", path+"/people/"+who, map[string]any{"administers": true}, &page)
	assert.True(t, page.People[0].Administers && page.People[1].Administers)
	admin.want(200, "DELETE", path+"/people/"+who, nil, &page)
	assert.Len(t, page.People, 1)
	admin.want(409, "DELETE", path+"/people/"+page.People[0].ID, nil, nil)

	var log struct{ Lines []api.AuditLine }
	admin.want(200, "GET", path+"/audit", nil, &log)
	var done []string
	for _, l := range log.Lines {
		done = append(done, l.Action)
	}
	for _, action := range []string{
		"added somebody to the school", "gave somebody a new password", "took somebody out of the school", "signed in",
	} {
		assert.Contains(t, done, action)
	}
	res, csv := admin.ask("GET", path+"/audit.csv", nil)
	assert.Equal(t, 200, res.StatusCode)
	assert.Contains(t, string(csv), "at,role,who,action,class,player")
	stranger.want(404, "GET", path+"/audit.csv", nil, nil)
}

// Whoever administers one school gets into no other by a colleague's new password.
func TestAPasswordIsResetOnlyInsideOneSchool(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "REED"), storetest.NewBand(t, h.store, "BRASS")
	admin, colleague := h.director(t, b), h.director(t, other)
	require.NoError(t, h.store.Join(t.Context(), b.Class.SchoolID, other.Director.ID))
	reset := "/schools/" + b.Class.SchoolID + "/people/" + other.Director.ID + "/password"
	admin.want(409, "POST", reset, nil, nil)
	colleague.want(200, "GET", "/classes", nil, nil)

	// Nor do they read what the colleague does in the other school.
	colleague.want(200, "POST", "/classes/"+other.Class.ID+"/players/"+other.Players[0].ID+"/pin", nil, nil)
	whatWasDone := func(by visitor, school string) string {
		_, log := by.ask("GET", "/schools/"+school+"/audit", nil)
		return string(log)
	}
	assert.NotContains(t, whatWasDone(admin, b.Class.SchoolID), other.Class.Name)
	assert.Contains(t, whatWasDone(colleague, other.Class.SchoolID), other.Class.Name)
}

// A class comes out of the archive as it went in.
func TestAClassComesOutOfTheArchive(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	var set api.ClassSetUp
	director.want(200, "POST", "/classes/"+b.Class.ID+"/archive", nil, &set)
	assert.True(t, set.Archived)
	h.visitor(t).want(404, "POST", "/sign-in/class", map[string]any{"code": b.Class.Code}, nil)
	director.want(200, "DELETE", "/classes/"+b.Class.ID+"/archive", nil, &set)
	assert.False(t, set.Archived)
	h.player(t, b, 0).want(200, "GET", "/practice", nil, nil)
}
