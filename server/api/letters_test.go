package api_test

import (
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/riverqueue/river"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/jobs"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
	"earlychorus/server/workers"
)

// letter waits for the next letter to somebody, through the queue and its worker.
func (v visitor) letter(to string) api.LetterView {
	v.t.Helper()
	var found api.LetterView
	require.Eventually(v.t, func() bool {
		var box struct {
			Letters []api.LetterView `json:"letters"`
		}
		v.want(200, "GET", "/stand-in/mail", nil, &box)
		for _, l := range box.Letters {
			if l.To == to {
				found = l
				return true
			}
		}
		return false
	}, time.Minute, 50*time.Millisecond)
	return found
}

// A forgotten password is changed by a letter's link: once, within the hour, and whoever was
// signed in is out.
func TestAForgottenPassword(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "FORGOT")
	signedIn, v := h.director(t, b), h.visitor(t)
	ask := func(email string) { v.want(204, "POST", "/sign-in/forgotten", map[string]string{"email": email}, nil) }
	ask("nobody@nowhere.example")
	ask(" " + strings.ToUpper(b.Director.Email))
	l := v.letter(b.Director.Email)
	_, token, found := strings.Cut(l.Body, "/new-password#")
	require.True(t, found, l.Body)
	token = strings.Fields(token)[0]
	var leaks int
	require.NoError(t, h.store.SQL().QueryRow(
		"SELECT count(*) FROM river_job WHERE position($1 in args::text) > 0", token).Scan(&leaks))
	assert.Zero(t, leaks, "the queue's rows hold no secret")

	choose := func(token, word string) (int, string) {
		res, said := v.ask("POST", "/sign-in/new-password", map[string]string{"token": token, "password": word})
		return res.StatusCode, string(said)
	}
	status, said := choose(token, "password1234")
	assert.Equal(t, 422, status)
	assert.Contains(t, said, "password")
	status, _ = choose("not a token", "harbour lantern quilt")
	assert.Equal(t, 404, status)
	status, said = choose(token, "harbour lantern quilt")
	require.Equal(t, 204, status, said)
	status, _ = choose(token, "another lantern quilt")
	assert.Equal(t, 404, status, "once")
	signedIn.want(401, "GET", "/classes", nil, nil)
	assert.Equal(t, 401, v.password(b.Director.Email, storetest.Password))
	assert.Equal(t, 200, v.password(b.Director.Email, "harbour lantern quilt"))

	// An hour later it is no good.
	_, err := h.store.SQL().Exec("DELETE FROM mailbox")
	require.NoError(t, err)
	ask(b.Director.Email)
	_, token, _ = strings.Cut(v.letter(b.Director.Email).Body, "/new-password#")
	_, err = h.store.SQL().Exec("UPDATE password_reset SET made_at = made_at - interval '61 minutes'")
	require.NoError(t, err)
	status, _ = choose(strings.Fields(token)[0], "harbour lantern quilts")
	assert.Equal(t, 404, status)
}

// Asking for letters without end costs waits, as guessing does.
func TestLettersAreNotAskedForWithoutEnd(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "FLOOD")
	v, sent := h.visitor(t), 0
	for range 2 * freeTries {
		res, _ := v.ask("POST", "/sign-in/forgotten", map[string]string{"email": b.Director.Email})
		if res.StatusCode == 204 {
			sent++
		}
	}
	assert.Equal(t, freeTries, sent)
}

// A letter's links lead to the public address, and never to where a stranger's request said.
func TestLettersLeadHome(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "LEAD"), storetest.NewBand(t, h.store, "LED")
	v := h.visitor(t)
	h.director(t, b).want(200, "POST", "/classes/"+b.Class.ID+"/directors",
		map[string]string{"email": other.Director.Email}, nil)
	l := v.letter(other.Director.Email)
	assert.Contains(t, l.Subject, b.Director.Name)
	assert.Contains(t, l.Body, h.URL)

	public, err := url.Parse("https://band.example.org")
	require.NoError(t, err)
	h.web.Public = public
	handler, stop := h.web.Handler(nil)
	t.Cleanup(stop)
	there := serveTLS(t, handler)
	there.want(204, "POST", "/sign-in/forgotten", map[string]string{"email": b.Director.Email}, nil)
	assert.Contains(t, v.letter(b.Director.Email).Body, "https://band.example.org/new-password#")
}

// The weekly letter counts, and names no child.
func TestTheWeeklyLetter(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "WEEKLY")
	director := h.director(t, b)
	director.want(204, "PUT", "/me/summary", map[string]bool{"weekly": true}, nil)
	var mine api.MySignIn
	director.want(200, "GET", "/me/sign-in", nil, &mine)
	assert.Equal(t, api.MySignIn{Weekly: true, Mail: true}, mine)
	require.NoError(t, h.web.Queue().AddNow(t.Context(), jobs.SendLetter{
		Letter:   jobs.LetterSummary,
		Director: b.Director.ID,
		Monday:   "2026-11-23",
		Site:     "https://band.example.org",
	}))
	l := director.letter(b.Director.Email)
	assert.Contains(t, l.Body, b.Class.Name+": 0 of 2 players practiced, 0 takes.")
	assert.NotContains(t, l.Body, "Ada")
}

// A device's code is asked for beside the password, each once; an administrator's new password
// ends it.
func TestCodesOfADevice(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "CODES")
	director := h.director(t, b)
	var offered api.NewCodeDevice
	director.want(200, "POST", "/me/code-device", nil, &offered)
	assert.True(t, strings.HasPrefix(offered.Square, "data:image/png;base64,"))
	code := func(later time.Duration) string {
		c, err := totp.GenerateCode(offered.Secret, time.Now().Add(later))
		require.NoError(t, err)
		return c
	}
	set := func(c string) map[string]string {
		return map[string]string{"secret": offered.Secret, "code": c, "now": storetest.Password}
	}
	borrowed := set(code(0))
	borrowed["now"] = "somebody else's guess"
	director.want(422, "PUT", "/me/code-device", borrowed, nil)
	director.want(422, "PUT", "/me/code-device", set("000000"), nil)
	director.want(204, "PUT", "/me/code-device", set(code(-30*time.Second)), nil)

	v := h.visitor(t)
	sign := func(c string) (int, string) {
		res, said := v.ask("POST", "/sign-in/director", map[string]string{
			"email": b.Director.Email, "password": storetest.Password, "code": c,
		})
		return res.StatusCode, string(said)
	}
	status, said := sign("")
	assert.Equal(t, 422, status)
	assert.Contains(t, said, "six digits")
	status, _ = sign(code(30 * time.Second)[:3] + " " + code(30 * time.Second)[3:])
	assert.Equal(t, 200, status)
	status, _ = sign(code(30 * time.Second))
	assert.Equal(t, 422, status, "a code counts once")

	require.NoError(t, h.store.RenewPassword(t.Context(), b.Director.ID, b.Director.PasswordHash))
	status, _ = sign("")
	assert.Equal(t, 200, status)
}

// A family that gave its address hears how the week went: its own child's, by first name.
func TestALetterHome(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "LETTERHOME")
	take := h.player(t, b, 0).playedAs(b, synth.Player{})
	director := h.director(t, b)
	director.want(200, "PUT", "/takes/"+take.ID+"/acts/"+newID(),
		map[string]any{"kind": "praise", "words": "A warm sound!"}, nil)
	family := map[string]any{"role": "family", "player": b.Players[0].ID, "email": " Home@Testerly.example "}
	made := director.pass(b, family)
	require.Equal(t, "home@testerly.example", made.Passes[0].Email)
	monday := store.Monday(b.Class.Day(time.Now()))
	w := &workers.WriteSummaries{
		Store:  h.store,
		Queue:  h.web.Queue(),
		Public: &url.URL{Scheme: "https", Host: "band.example.org"},
		Now:    func() time.Time { return monday.AddDate(0, 0, 7).Add(8 * time.Hour) },
	}
	for range 2 { // again is harmless
		require.NoError(t, w.Work(t.Context(), &river.Job[jobs.WriteSummaries]{}))
	}
	l := director.letter("home@testerly.example")
	assert.Contains(t, l.Subject, "Ada’s week of "+monday.Format("2 January"))
	assert.Contains(t, l.Body, "Ada practiced on 1 day last week.")
	assert.Contains(t, l.Body, "“A warm sound!”")
	assert.Contains(t, l.Body, "https://band.example.org/pass")
	assert.NotContains(t, l.Body, "Testerly")
	assert.NotContains(t, l.Body, made.Code)
	var sent int
	require.NoError(t, h.store.SQL().QueryRow("SELECT count(*) FROM mailbox").Scan(&sent))
	assert.Equal(t, 1, sent)

	family["email"] = "no address"
	family["name"], family["until"] = "Again", time.Now().Format(time.DateOnly)
	res, said := director.ask("POST", "/classes/"+b.Class.ID+"/passes", family)
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, string(said), "email")
}
