package api_test

import (
	"net"
	"net/http"
	"net/http/cookiejar"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/app"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// pin tries a PIN and returns how it was answered.
func (v visitor) pin(code, playerID, pin string) int {
	v.t.Helper()
	res, _ := v.ask("POST", "/sign-in/player", map[string]string{"code": code, "player_id": playerID, "pin": pin})
	return res.StatusCode
}

// password tries a password and returns how it was answered.
func (v visitor) password(email, password string) int {
	v.t.Helper()
	res, _ := v.ask("POST", "/sign-in/director", map[string]string{"email": email, "password": password})
	return res.StatusCode
}

// freeTries are wrong ones that cost nothing.
const freeTries = 5

// No spelling of an address or a number has tries of its own, and another process
// counts the same ones.
func TestEverySpellingIsGuessedAtOnce(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "GUESS")
	v := h.visitor(t)
	email, id := b.Director.Email, b.Players[0].ID
	emails := []string{email, " " + email, email + "\t", "\u2003" + email, strings.ToUpper(email), "  " + email}
	for n, spelt := range emails {
		assert.Equal(t, []int{401, 429}[n/freeTries], v.password(spelt, "wrong"), "%q", spelt)
	}
	assert.Equal(t, 429, v.password(" "+email, storetest.Password), "the right one has to wait, too")
	ids := []string{
		id, strings.ToUpper(id), strings.ReplaceAll(id, "-", ""), "{" + id + "}", "urn:uuid:" + id,
		strings.ToUpper(strings.ReplaceAll(id, "-", "")),
	}
	for n, spelt := range ids {
		assert.Contains(t, [][]int{{401, 422}, {429, 422}}[n/freeTries], v.pin("guess", spelt, "000000"), spelt)
	}

	// Another process on the same database.
	other, err := app.Serve(app.Parts{Store: h.store, Recordings: h.web.Recordings, Now: time.Now})
	require.NoError(t, err)
	t.Cleanup(other.Stop)
	handler, stop := other.Handler(nil)
	t.Cleanup(stop)
	elsewhere := serveTLS(t, handler)
	assert.Equal(t, 429, elsewhere.password(email, "wrong"))
}

// Nobody locks a classmate out: a device that has signed the child in before has waits of
// its own, and a new PIN lets the child in anywhere.
func TestNobodyIsLockedOutByOthers(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "LOCK")
	ada, stranger := h.player(t, b, 0), h.visitor(t)
	for stranger.pin("LOCK", b.Players[0].ID, "000000") != 429 {
	}
	assert.Equal(t, 200, ada.pin("LOCK", b.Players[0].ID, storetest.PIN), "from her own device")
	assert.Equal(t, 429, stranger.pin("LOCK", b.Players[0].ID, storetest.PIN))
	assert.Equal(t, 200, h.visitor(t).pin("LOCK", b.Players[1].ID, storetest.PIN), "nor is a classmate held up")

	var fresh struct {
		PIN string `json:"pin"`
	}
	director := h.director(t, b)
	director.want(200, "POST", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID+"/pin", nil, &fresh)
	assert.Regexp(t, `^\d{6}$`, fresh.PIN)
	ada.want(401, "GET", "/practice", nil, nil)
	assert.Equal(t, 200, h.visitor(t).pin("LOCK", b.Players[0].ID, fresh.PIN), "who stands before the director")
}

// Right ones do not count, however often; the wait after wrong ones grows, and ends.
func TestWaitsGrowAndEnd(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "WAIT")
	for range 3 * freeTries {
		require.Equal(t, 200, h.visitor(t).pin("WAIT", b.Players[0].ID, storetest.PIN))
	}
	v := h.visitor(t)
	for range freeTries {
		require.Equal(t, 401, v.pin("WAIT", b.Players[0].ID, "000000"))
	}
	waits := []time.Duration{}
	for range 3 {
		res, said := v.ask("POST", "/sign-in/player", map[string]string{
			"code": "WAIT", "player_id": b.Players[0].ID, "pin": "000000",
		})
		require.Equal(t, 429, res.StatusCode)
		assert.Contains(t, string(said), "seconds")
		wait, err := time.ParseDuration(res.Header.Get("Retry-After") + "s")
		require.NoError(t, err)
		waits = append(waits, wait)
		_, err = h.store.SQL().Exec("UPDATE guess SET last = last - $1 * interval '1 second'", wait.Seconds())
		require.NoError(t, err)
		require.Equal(t, 401, v.pin("WAIT", b.Players[0].ID, "000000"), "it may be tried again")
	}
	assert.Less(t, waits[0], waits[1])
	assert.Less(t, waits[1], waits[2])
}

// Tries at once do not slip through together.
func TestTriesAtOnceAreCountedOneByOne(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "ATONCE")
	got := make(chan int)
	for range 40 {
		go func() { got <- h.visitor(t).pin("ATONCE", b.Players[0].ID, "000000") }()
	}
	through := 0
	for range 40 {
		if <-got == 401 {
			through++
		}
	}
	assert.Equal(t, freeTries, through)
}

// A class under attack waits for strangers, and its director is told.
func TestADirectorIsToldOfGuessing(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "ATTACK")
	b.Join(t, h.store, "flute", 10)
	_, err := h.store.SQL().Exec("UPDATE player SET pin_hash = $1 WHERE pin_hash = ''", b.Players[0].PINHash)
	require.NoError(t, err)
	tries := 0
	for _, p := range b.Players {
		for h.visitor(t).pin("ATTACK", p.ID, "000000") == 401 {
			tries++
		}
	}
	assert.Equal(t, 60, tries, "of all its players together")
	director := h.director(t, b)
	var today struct {
		Guessed int `json:"guessed"`
	}
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &today)
	assert.Equal(t, 60, today.Guessed)
}

// Codes cannot be searched for, and a class keeps its own way in.
func TestCodesAreNotSearchedFor(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "APRON-BOAT-KELP-SUGAR")
	v := h.visitor(t)
	open := func(code string) int {
		res, _ := v.ask("POST", "/sign-in/class", map[string]string{"code": code})
		return res.StatusCode
	}
	refused := 0
	for range 60 {
		if open("no such code") == 429 {
			refused++
		}
	}
	assert.GreaterOrEqual(t, refused, 28)
	for range 40 {
		require.Equal(t, 200, open(" apron boat kelp sugar"), "the class at the bell")
	}
	director := h.director(t, b)
	var set api.ClassSetUp
	director.want(200, "POST", "/classes/"+b.Class.ID+"/code", nil, &set)
	assert.Equal(t, 200, open(set.Class.Code))
	assert.Contains(t, []int{404, 429}, open(b.Class.Code), "the old one opens nothing")
}

// Who left is out, at once.
func TestWhoLeftIsOut(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "OUT")
	director := h.director(t, b)
	ada := h.player(t, b, 0)
	ada.want(200, "GET", "/practice", nil, nil)
	director.want(200, "DELETE", "/classes/"+b.Class.ID+"/roster/"+b.Players[0].ID, nil, nil)
	ada.want(401, "GET", "/practice", nil, nil)
	status, _ := ada.upload(b, newID(), "file", 1, played(t, synth.Player{}))
	assert.Equal(t, 401, status)
	assert.Equal(t, 401, h.visitor(t).pin("OUT", b.Players[0].ID, storetest.PIN))

	bo := h.player(t, b, 1)
	director.want(204, "DELETE", "/classes/"+b.Class.ID+"/players/"+b.Players[1].ID+"/sessions", nil, nil)
	bo.want(401, "GET", "/practice", nil, nil)
	bo = h.player(t, b, 1)
	director.want(200, "POST", "/classes/"+b.Class.ID+"/archive", nil, nil)
	bo.want(401, "GET", "/practice", nil, nil)
}

// Sessions are listed, and ended; one on a shared device ends by itself.
func TestSessionsEnd(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "SESSION")
	here, there := h.director(t, b), h.director(t, b)
	var list struct {
		Sessions []api.OpenSession `json:"sessions"`
	}
	here.want(200, "GET", "/me/sessions", nil, &list)
	require.Len(t, list.Sessions, 2)
	here.want(200, "DELETE", "/me/sessions", nil, &list)
	require.Len(t, list.Sessions, 1)
	assert.True(t, list.Sessions[0].This)
	there.want(401, "GET", "/classes", nil, nil)
	here.want(404, "DELETE", "/me/sessions/"+newID(), nil, nil)

	shared := h.visitor(t)
	shared.want(200, "POST", "/sign-in/player", map[string]any{
		"code": b.Class.Code, "player_id": b.Players[0].ID, "pin": storetest.PIN, "shared": true,
	}, nil)
	shared.want(200, "GET", "/practice", nil, nil)
	_, err := h.store.SQL().Exec("UPDATE sessions SET seen = now() - interval '31 minutes'")
	require.NoError(t, err)
	shared.want(401, "GET", "/practice", nil, nil)
	here.want(200, "GET", "/classes", nil, nil)
}

// Whoever sees, hears, overrules, exports or deletes is written down; so is who did not
// get in.
func TestWhatIsDoneIsWrittenDown(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "AUDIT")
	began := time.Now().Add(-time.Second)
	take := h.player(t, b, 0).playedAs(b, synth.Player{})
	h.visitor(t).pin("AUDIT", b.Players[0].ID, "000000")
	director := h.director(t, b)
	class := "/classes/" + b.Class.ID
	director.want(200, "GET", "/takes/"+take.ID, nil, nil)
	director.ask("GET", "/takes/"+take.ID+"/audio.wav", nil)
	director.want(200, "PUT", "/takes/"+take.ID+"/review", map[string]string{"result": "clean"}, nil)
	director.ask("GET", class+"/progress.csv", nil)
	director.want(200, "DELETE", class+"/players/"+b.Players[0].ID, nil, nil)
	lines, err := h.store.AuditOfClass(t.Context(), b.Class.ID, began, time.Now().Add(time.Minute), 100)
	require.NoError(t, err)
	var said []string
	for _, l := range lines {
		said = append(said, l.Action)
		if l.Role == store.RoleDirector {
			require.NotNil(t, l.Subject)
			assert.Equal(t, b.Director.ID, *l.Subject)
		}
		if strings.Contains(l.Action, "a take") {
			require.NotNil(t, l.PlayerID, l.Action)
			assert.Equal(t, b.Players[0].ID, *l.PlayerID)
		}
	}
	assert.Equal(t, []string{
		"deleted a player",
		"exported a class's progress",
		"overruled",
		"heard a take",
		"saw a take",
		"failed to sign in",
	}, said)
}

// Every answer says how it may be used: kept by nobody, framed by nobody.
func TestAnswersArePrivate(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "HEADERS")
	director := h.director(t, b)
	take := h.player(t, b, 0).playedAs(b, synth.Player{})
	for _, path := range []string{
		"/me", "/classes", "/takes/" + take.ID, "/takes/" + take.ID + "/audio.flac", "/takes/" + take.ID + "/audio.wav",
		"/classes/" + b.Class.ID + "/progress.csv", "/classes/" + b.Class.ID + "/everything.zip",
		"/classes/" + b.Class.ID + "/players/" + b.Players[0].ID + "/report.pdf",
	} {
		res, _ := director.ask("GET", path, nil)
		require.Equal(t, 200, res.StatusCode, path)
		assert.Equal(t, "no-store", res.Header.Get("Cache-Control"), path)
		assert.Equal(t, "same-origin", res.Header.Get("Cross-Origin-Opener-Policy"), path)
		assert.Equal(t, "same-origin", res.Header.Get("Cross-Origin-Resource-Policy"), path)
		assert.NotEmpty(t, res.Header.Get("Strict-Transport-Security"), path)
		assert.NotContains(t, res.Header.Get("Content-Security-Policy"), "unsafe-inline", path)
	}
	res, _ := h.visitor(t).ask("POST", "/sign-in/player", map[string]string{
		"code": b.Class.Code, "player_id": b.Players[1].ID, "pin": storetest.PIN,
	})
	for _, c := range res.Cookies() {
		assert.True(t, strings.HasPrefix(c.Name, "__Host-"), c.Name)
		assert.True(t, c.HttpOnly && c.Secure && c.SameSite == http.SameSiteStrictMode && c.Path == "/", c.Name)
	}
}

// What cannot be kept is told in the API's own shape.
func TestBadTextIsNobodysFault(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "TEXT")
	director := h.director(t, b)
	res, said := director.ask("POST", "/classes", map[string]any{"name": "a\x00b", "keep": []string{}})
	assert.Equal(t, 422, res.StatusCode, string(said))
	assert.Equal(t, 422, h.visitor(t).password("a\x00b@c.example", "x"))
	long := map[string]any{"name": strings.Repeat("x", 2<<20), "keep": []string{}}
	res, said = director.ask("POST", "/classes", long)
	assert.Equal(t, 413, res.StatusCode)
	assert.NotContains(t, string(said), "recording")
}

// A body that never ends is cut off.
func TestABodyThatNeverEndsIsCutOff(t *testing.T) {
	h := newServer(t)
	defer api.Impatient(300 * time.Millisecond)()
	b := storetest.NewBand(t, h.store, "SLOW")
	player := h.player(t, b, 0)
	hold, drip := net.Pipe()
	defer hold.Close() //nolint:errcheck // test
	req, err := http.NewRequest("PUT", player.base+"/takes/"+newID()+"/parts/0", drip)
	require.NoError(t, err)
	began := time.Now()
	res, err := player.client.Do(req)
	if err == nil {
		assert.Equal(t, http.StatusRequestTimeout, res.StatusCode)
		require.NoError(t, res.Body.Close())
	}
	assert.Less(t, time.Since(began), time.Minute)
}

// serveTLS serves a handler to one visitor.
func serveTLS(t *testing.T, handler http.Handler) visitor {
	t.Helper()
	server := newTLS(t, handler)
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return visitor{t, server.URL + "/api", &http.Client{Transport: server.Client().Transport, Jar: jar}}
}

// A colleague is asked, and accepts; nobody learns who has an account, and the last one
// who directs a class stays.
func TestDirectorsAreAskedAndMayLeave(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "ASKED"), storetest.NewBand(t, h.store, "FRIEND")
	one, two := h.director(t, b), h.director(t, other)
	class := "/classes/" + b.Class.ID
	var set api.ClassSetUp
	one.want(409, "DELETE", class+"/directors/"+b.Director.ID, nil, nil)
	for _, email := range []string{"nobody@nowhere.example", other.Director.Email} {
		one.want(200, "POST", class+"/directors", map[string]string{"email": email}, &set)
	}
	assert.Len(t, set.Invited, 2, "answered alike")
	one.want(200, "DELETE", class+"/invitations?email=nobody@nowhere.example", nil, &set)
	assert.Len(t, set.Invited, 1)
	two.want(404, "GET", class+"/set-up", nil, nil)
	var asked struct {
		Invitations []api.InvitationView `json:"invitations"`
	}
	two.want(200, "GET", "/invitations", nil, &asked)
	require.Len(t, asked.Invitations, 1)
	assert.Equal(t, b.Director.Name, asked.Invitations[0].By)
	h.director(t, storetest.NewBand(t, h.store, "STRANGER")).want(404, "POST", "/invitations/"+b.Class.ID, nil, nil)
	two.want(200, "DELETE", "/invitations/"+b.Class.ID, nil, &asked)
	assert.Empty(t, asked.Invitations)
	two.want(404, "POST", "/invitations/"+b.Class.ID, nil, nil)
	one.want(200, "POST", class+"/directors", map[string]string{"email": other.Director.Email}, nil)
	two.want(200, "POST", "/invitations/"+b.Class.ID, nil, nil)
	two.want(200, "GET", class+"/set-up", nil, &set)
	assert.Len(t, set.Directors, 2)

	// In two schools: a new class is in the one it stands beside.
	two.want(422, "POST", "/classes", map[string]any{"name": "Where?", "keep": []string{}}, nil)
	two.want(200, "POST", "/classes", map[string]any{"name": "Here", "keep": []string{}, "beside": b.Class.ID}, &set)
	assert.Equal(t, b.Class.School.Name, set.Class.School)

	one.want(204, "DELETE", class+"/directors/"+other.Director.ID, nil, nil)
	two.want(404, "GET", class+"/set-up", nil, nil)
}

// A class holds a large band, and says when there are too many.
func TestALargeBandIsListedWhole(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "LARGE")
	b.Join(t, h.store, "flute", 298)
	director := h.director(t, b)
	var set api.ClassSetUp
	director.want(200, "GET", "/classes/"+b.Class.ID+"/set-up", nil, &set)
	assert.Len(t, set.Players, 300)
	var names api.Names
	h.visitor(t).want(200, "POST", "/sign-in/class", map[string]string{"code": "large"}, &names)
	assert.Len(t, names.Players, 300)
	b.Join(t, h.store, "flute", 700)
	res, said := director.ask("POST", "/classes/"+b.Class.ID+"/roster", map[string]any{"rows": []map[string]any{{
		"line": 1, "first": "One", "last": "More", "instrument": "flute", "variant": "", "stage": 0,
		"external_id": "", "problems": []string{}, "action": "add", "player_id": "",
	}}})
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, string(said), "1000 players")
}
