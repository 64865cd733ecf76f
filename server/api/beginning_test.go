package api_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/api"
	"earlychorus/server/classcode"
	"earlychorus/server/store/storetest"
)

// An empty database is begun once, by whoever has the code; its administrator is in at once
// and begins a class.
func TestASchoolIsBegunOnce(t *testing.T) {
	h := newServer(t)
	anyone := h.visitor(t)
	var state api.Beginning
	anyone.want(200, "GET", "/beginning", nil, &state)
	require.True(t, state.Needed)
	code := classcode.New()
	require.NoError(t, h.store.AllowFirstStart(t.Context(), classcode.Key(code), time.Now()))
	begin := func(change map[string]any) map[string]any {
		body := map[string]any{
			"code": " " + code + " ", "school": "Tern Rock School", "time_zone": "Atlantic/Azores",
			"name": "Isolde Marsh", "email": "Isolde@Tern.example", "password": "kelp anvil sofa mint",
		}
		for k, v := range change {
			body[k] = v
		}
		return body
	}
	for field, bad := range map[string]any{
		"code":      "WRONG-WORDS-ARE-HERE",
		"time_zone": "Mars/Crater",
		"password":  "short",
		"email":     "nobody",
		"school":    " ",
	} {
		res, answer := anyone.ask("POST", "/beginning", begin(map[string]any{field: bad}))
		assert.Equal(t, 422, res.StatusCode, field)
		assert.Contains(t, string(answer), field)
	}
	// Who does not have the code is told nothing else, and costs no hashing.
	_, answer := anyone.ask("POST", "/beginning", begin(map[string]any{"code": "NO", "password": "short"}))
	assert.NotContains(t, string(answer), "password")
	var me api.Me
	anyone.want(200, "POST", "/beginning", begin(nil), &me)
	assert.Equal(t, "Isolde Marsh", me.Name)
	require.Len(t, me.Schools, 1, "which they administer")
	h.visitor(t).want(409, "POST", "/beginning", begin(nil), nil)
	anyone.want(200, "GET", "/beginning", nil, &state)
	assert.False(t, state.Needed)

	var set api.ClassSetUp
	anyone.want(200, "POST", "/classes", map[string]any{"name": "First Winds", "keep": []string{}}, &set)
	assert.Equal(t, "Tern Rock School", set.Class.School)
}

// A password is changed by whoever knows it as it is now; everywhere else one is signed out.
func TestAPasswordIsChanged(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	here, there := h.director(t, b), h.director(t, b)
	change := map[string]any{"now": storetest.Password, "password": "kelp anvil sofa mint"}
	here.want(422, "PUT", "/me/password", map[string]any{"now": "wrong", "password": "kelp anvil sofa mint"}, nil)
	here.want(
		422,
		"PUT",
		"/me/password",
		map[string]any{"now": storetest.Password, "password": "passwordpassword"},
		nil,
	)
	here.want(204, "PUT", "/me/password", change, nil)
	there.want(401, "GET", "/classes", nil, nil)
	here.want(200, "GET", "/classes", nil, nil)
	assert.Equal(t, 401, h.visitor(t).password(b.Director.Email, storetest.Password))
	assert.Equal(t, 200, h.visitor(t).password(b.Director.Email, "kelp anvil sofa mint"))
}
