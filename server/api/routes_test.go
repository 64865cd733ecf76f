package api_test

import (
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// open lists the routes that anybody may ask: the ways in, and calendars, whose
// address is their secret.
var open = []string{
	"GET /me",
	"POST /sign-out",
	"POST /sign-in/director",
	"POST /sign-in/class",
	"POST /sign-in/player",
	"POST /sign-in/pass",
	"POST /sign-in/forgotten",
	"POST /sign-in/new-password",
	"GET /stand-in/mail", // of the demo alone
	"GET /sign-on/{school}",
	"GET /sign-on/callback",
	"GET /sign-on/choices", // of whoever signed on, by the session
	"POST /sign-on/choices",
	"GET /beginning", // whether there is a school at all
	"POST /beginning",
	"GET /feeds/{feed}",
}

// handingIn are asked about a take that is not there yet, under a number of the
// device's own: what is received is kept, and told, by player.
var handingIn = []string{"PUT /takes/{take}", "PUT /takes/{take}/parts/{offset}", "GET /takes/{take}/received"}

// signIns is how somebody of each role comes in, for a class.
var signIns = map[store.Role]func(*testServer, testing.TB, storetest.Band) visitor{
	store.RoleDirector: (*testServer).director,
	store.RolePlayer:   func(h *testServer, t testing.TB, b storetest.Band) visitor { return h.player(t, b, 0) },
	store.RoleAssistant: func(h *testServer, t testing.TB, b storetest.Band) visitor {
		return h.byPass(t, b, map[string]any{"role": "assistant"})
	},
	store.RoleSubstitute: func(h *testServer, t testing.TB, b storetest.Band) visitor {
		return h.byPass(t, b, map[string]any{"role": "substitute", "hears": true})
	},
	store.RoleFamily: func(h *testServer, t testing.TB, b storetest.Band) visitor {
		return h.byPass(t, b, map[string]any{"role": "family", "player": b.Players[1].ID})
	},
}

var placeholder = regexp.MustCompile(`\{[^}]+\}`)

// Every route that names a class, a take or a player is closed to whom it does not
// belong: also the one that is added tomorrow.
func TestEveryRouteIsClosedToOthers(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "MINE"), storetest.NewBand(t, h.store, "THEIRS")
	owner := h.player(t, b, 0)
	take := newID()
	status, _ := owner.upload(b, take, "microphone", 1, played(t, synth.Player{}))
	require.Equal(t, 201, status)
	owner.heard(take)

	of := strings.NewReplacer(
		"{class}",
		b.Class.ID,
		"{school}",
		b.Class.SchoolID,
		"{take}",
		take,
		"{player}",
		b.Players[0].ID,
		"{step}",
		b.Step.ID,
		"{section}",
		"Clarinets",
		"{monday}",
		"2026-11-23",
		"{day}",
		"1",
		"{format}",
		"csv",
		"{format:csv|json}",
		"csv",
		"{format:csv|zip}",
		"csv",
		"{offset}",
		"0",
		"{ladder}",
		"clarinet-break",
	)
	outsiders := map[string]visitor{"classmate": h.player(t, b, 1)}
	for _, role := range store.Roles() {
		signIn, known := signIns[role]
		require.True(t, known, "a new role, %s: say here how somebody of it signs in", role)
		outsiders[string(role)+" elsewhere"] = signIn(h, t, other)
	}
	stranger := h.visitor(t)
	asked := 0
	require.NoError(t, api.EachRoute(func(method, path string) {
		path = strings.TrimSuffix(path, "/")
		if slices.Contains(open, method+" "+path) {
			return
		}
		address := placeholder.ReplaceAllStringFunc(of.Replace(path), func(string) string { return newID() })
		var body any
		if method != "GET" && method != "DELETE" {
			body = map[string]any{}
		}
		res, _ := stranger.ask(method, address, body)
		assert.Equal(t, 401, res.StatusCode, "a stranger: %s %s", method, path)
		if !strings.Contains(path, "{class}") && !strings.Contains(path, "{take}") &&
			!strings.Contains(path, "{school}") && !strings.Contains(path, "{player}") {
			return
		}
		if slices.Contains(handingIn, method+" "+path) {
			return
		}
		for name, v := range outsiders {
			res, _ := v.ask(method, address, body)
			assert.Contains(t, []int{403, 404, 422}, res.StatusCode, "%s: %s %s", name, method, path)
			if method == "GET" {
				assert.Equal(t, 404, res.StatusCode, "%s: %s %s", name, method, path)
			}
			asked++
		}
	}))
	assert.Greater(t, asked, 100)

	var view struct {
		State string `json:"state"`
	}
	owner.want(200, "GET", "/takes/"+take, nil, &view)
	assert.Equal(t, "done", view.State, "nothing was changed by asking")
}
