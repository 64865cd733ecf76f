package api_test

import (
	"bytes"
	"encoding/binary"
	"net/http"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/practicepage"
	"earlychorus/server/store/storetest"
)

func TestSigningIn(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	v := h.visitor(t)
	v.want(401, "POST", "/sign-in/director", map[string]string{"email": b.Director.Email, "password": "wrong"}, nil)
	v.want(
		401,
		"POST",
		"/sign-in/director",
		map[string]string{"email": "nobody@nowhere.example", "password": "wrong"},
		nil,
	)
	v.want(404, "POST", "/sign-in/class", map[string]string{"code": "NOPE"}, nil)

	var names api.Names
	v.want(200, "POST", "/sign-in/class", map[string]string{"code": " reed "}, &names)
	assert.Equal(t, "Ada T.", names.Players[0].Name)
	_, raw := v.ask("POST", "/sign-in/class", map[string]string{"code": "REED"})
	assert.NotContains(t, string(raw), "Testerly")

	other := storetest.NewBand(t, h.store, "BRASS")
	v.want(
		401,
		"POST",
		"/sign-in/player",
		map[string]string{"code": other.Class.Code, "player_id": b.Players[0].ID, "pin": storetest.PIN},
		nil,
	)
	res, _ := v.ask(
		"POST",
		"/sign-in/player",
		map[string]string{"code": "REED", "player_id": b.Players[0].ID, "pin": storetest.PIN},
	)
	require.Equal(t, 200, res.StatusCode)
	cookie := res.Cookies()[0]
	assert.True(t, cookie.Secure)
	assert.True(t, cookie.HttpOnly)
	assert.Equal(t, http.SameSiteStrictMode, cookie.SameSite)

	var me api.Me
	v.want(200, "GET", "/me", nil, &me)
	assert.Equal(t, "player", me.Role)
	v.want(204, "POST", "/sign-out", nil, nil)
	v.want(200, "GET", "/me", nil, &me)
	assert.Equal(t, "nobody", me.Role)
}

// Nobody reaches what is another's: not a player another's take, not a
// director another's class, not a player a director's page, not a stranger
// anything.
func TestNobodyReachesWhatIsAnothers(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "REED"), storetest.NewBand(t, h.store, "BRASS")
	owner := h.player(t, b, 0)
	id := newID()
	status, _ := owner.upload(b, id, "microphone", 1, played(t, synth.Player{}))
	require.Equal(t, 201, status)
	owner.heard(id)

	take, class := "/takes/"+id, "/classes/"+b.Class.ID
	parameters := storetest.ShortStep.Values
	paths := []struct {
		method, path string
		body         any
	}{
		{"GET", take, nil},
		{"GET", take + "/audio.wav", nil},
		{"GET", take + "/audio.flac", nil},
		{"GET", take + "/contour.csv", nil},
		{"PUT", take + "/acts/" + newID(), map[string]string{"kind": "comment", "words": "hello"}},
		{"PUT", take + "/review", map[string]string{"result": "clean"}},
		{"GET", class + "/today", nil},
		{"GET", class + "/plans/2026-11-23", nil},
		{"PUT", class + "/plans/2026-11-23", map[string]any{"based_on_revision": 0, "name": "x", "items": []any{}}},
		{"POST", class + "/days/work", map[string]any{"items": []any{}, "at": "class", "minutes": 0}},
		{"GET", class + "/steps/sound.wav", nil},
		{"POST", class + "/steps/preview", map[string]any{"kind": b.Step.Kind, "parameters": parameters}},
	}
	others := map[string]visitor{
		"classmate": h.player(
			t,
			b,
			1,
		),
		"player elsewhere":   h.player(t, other, 0),
		"director elsewhere": h.director(t, other),
	}
	for _, p := range paths {
		for name, v := range others {
			res, _ := v.ask(p.method, p.path, p.body)
			assert.Equal(t, 404, res.StatusCode, "%s: %s %s", name, p.method, p.path)
		}
		res, _ := h.visitor(t).ask(p.method, p.path, p.body)
		assert.Equal(t, 401, res.StatusCode, "stranger: %s %s", p.method, p.path)
	}
	director := h.director(t, b)
	res, _ := director.ask("GET", "/practice", nil)
	assert.Equal(t, 404, res.StatusCode, "a director has no practice page")
	// A player of another class cannot hand in to this class's step.
	status, _ = others["player elsewhere"].upload(b, newID(), "microphone", 1, played(t, synth.Player{}))
	assert.Equal(t, 404, status)
}

func TestAnotherSitesPageCannotAct(t *testing.T) {
	h := newServer(t)
	req, err := http.NewRequest("POST", h.URL+"/api/sign-out", strings.NewReader("{}"))
	require.NoError(t, err)
	req.Header.Set("Sec-Fetch-Site", "cross-site")
	res, err := h.Client().Do(req)
	require.NoError(t, err)
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
}

func TestRepeatedUploadsAnswerTheSame(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	player := h.player(t, b, 0)
	id, file := newID(), played(t, synth.Player{})
	status, first := player.upload(b, id, "microphone", 1, file)
	require.Equal(t, 201, status)
	status, second := player.upload(b, id, "microphone", 1, file)
	assert.Equal(t, 200, status)
	assert.Equal(t, first, second)
	status, _ = player.upload(b, id, "microphone", 1, played(t, synth.Player{Offset: 9}))
	assert.Equal(t, 409, status, "other bytes")
	status, _ = h.player(t, b, 1).upload(b, id, "microphone", 1, file)
	assert.Equal(t, 409, status, "another player")
	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	assert.Len(t, practice.Steps[0].Takes, 1)
	_, back := player.ask("GET", "/takes/"+id+"/audio.wav", nil)
	assert.Equal(t, file, back, "the accepted sound was not overwritten")
}

func TestBadUploadsChangeNothing(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	player := h.player(t, b, 0)
	good := played(t, synth.Player{})
	twoGB := bytes.Clone(good[:60])
	binary.LittleEndian.PutUint32(twoGB[40:], 2_000_000_000)
	threeHours := bytes.Clone(good[:1000])
	binary.LittleEndian.PutUint32(threeHours[40:], 3*3600*48000*2)
	for _, c := range []struct {
		name   string
		file   []byte
		status int
		says   string
	}{
		{"not audio", []byte("GIF89a and then a great many other bytes, none of them sound"), 415, "not a WAV file"},
		{"nothing", []byte{}, 415, "not a WAV file"},
		{"truncated", good[:len(good)-4000], 422, "cut short"},
		{"no sound in it", wav.Encode(audio.Mono{Rate: 48000}), 422, "empty"},
		{"a blink", wav.Encode(audio.Mono{Rate: 48000, Samples: make([]float64, 4800)}), 422, "0.1 s"},
		{"a 2 GB header", twoGB, 413, "longer than"},
		{"three hours", threeHours, 413, "longer than"},
		{"telephone rate", wav.Encode(audio.Mono{Rate: 8000, Samples: make([]float64, 16000)}), 422, "8000 Hz"},
	} {
		status, answer := player.upload(b, newID(), "file", 1, c.file)
		assert.Equal(t, c.status, status, c.name)
		assert.Contains(t, answer, c.says, c.name)
	}
	status, answer := player.upload(b, "not-a-number", "file", 1, good)
	assert.Equal(t, 422, status, answer)
	status, _ = player.upload(b, newID(), "telepathy", 1, good)
	assert.Equal(t, 422, status)
	status, _ = player.upload(b, newID(), "file", 7, good)
	assert.Equal(t, 404, status, "no such version of the step")

	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	assert.Empty(t, practice.Steps[0].Takes)
	kept, err := os.ReadDir(h.folder)
	require.NoError(t, err)
	assert.Empty(t, kept, "no recording was kept")
}
