package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"path/filepath"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/app"
	"earlychorus/server/mail"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// testServer is a whole server in a test: real database, real workers, real HTTP.
type testServer struct {
	*httptest.Server
	store  *store.Store
	web    *app.Web
	folder string
}

func newServer(t testing.TB) *testServer { return newServerIn(t, t.TempDir()) }

// newServerIn keeps its recordings in a folder of the test's choice.
func newServerIn(t testing.TB, folder string) *testServer {
	t.Helper()
	s := storetest.Open(t)
	kept, err := recordings.InFolder(folder)
	require.NoError(t, err)
	parts := app.Parts{Store: s, Recordings: kept, Now: time.Now}
	parts.Post, parts.Mailbox = mail.Mailbox{Store: s, Now: time.Now}, true
	web, err := app.Serve(parts)
	require.NoError(t, err)
	work, err := app.Work(parts, "test")
	require.NoError(t, err)
	handler, stop := web.Handler(nil)
	server := newTLS(t, handler)
	t.Cleanup(func() {
		server.Close()
		stop()
		web.Stop()
		require.NoError(t, work.Stop(context.Background()))
	})
	return &testServer{server, s, web, folder}
}

// newTLS serves a handler: cookies are sent over HTTPS only.
func newTLS(t testing.TB, handler http.Handler) *httptest.Server {
	server := httptest.NewTLSServer(handler)
	t.Cleanup(server.Close)
	return server
}

// files are all that is kept of sounds.
func (h *testServer) files() (out []string) {
	_ = filepath.WalkDir(h.folder, func(path string, d fs.DirEntry, err error) error {
		if err == nil && !d.IsDir() && d.Name() != "cluster" {
			out = append(out, path)
		}
		return nil
	})
	return out
}

// visitor is somebody with a browser.
type visitor struct {
	t      testing.TB
	base   string
	client *http.Client
}

func (h *testServer) visitor(t testing.TB) visitor {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return visitor{t, h.URL + "/api", &http.Client{Transport: h.Client().Transport, Jar: jar}}
}

func (h *testServer) director(t testing.TB, b storetest.Band) visitor {
	v := h.visitor(t)
	v.want(
		200,
		"POST",
		"/sign-in/director",
		map[string]string{"email": b.Director.Email, "password": storetest.Password},
		nil,
	)
	return v
}

func (h *testServer) player(t testing.TB, b storetest.Band, n int) visitor {
	v := h.visitor(t)
	v.want(
		200,
		"POST",
		"/sign-in/player",
		map[string]string{"code": b.Class.Code, "player_id": b.Players[n].ID, "pin": storetest.PIN},
		nil,
	)
	return v
}

// ask sends a request and returns its answer, read.
func (v visitor) ask(method, path string, body any) (*http.Response, []byte) {
	v.t.Helper()
	var send io.Reader
	mime := "application/json"
	switch b := body.(type) {
	case nil:
	case []byte:
		send, mime = bytes.NewReader(b), "audio/wav"
	default:
		raw, err := json.Marshal(b)
		require.NoError(v.t, err)
		send = bytes.NewReader(raw)
	}
	req, err := http.NewRequest(method, v.base+path, send)
	require.NoError(v.t, err)
	req.Header.Set("Content-Type", mime)
	res, err := v.client.Do(req)
	require.NoError(v.t, err)
	defer res.Body.Close() //nolint:errcheck // read whole
	answer, err := io.ReadAll(res.Body)
	require.NoError(v.t, err)
	return res, answer
}

// want sends a request that must be answered with status, and reads its JSON.
func (v visitor) want(status int, method, path string, body, into any) {
	v.t.Helper()
	res, answer := v.ask(method, path, body)
	require.Equal(v.t, status, res.StatusCode, "%s %s: %s", method, path, answer)
	if into != nil {
		require.NoError(v.t, json.Unmarshal(answer, into))
	}
}

// upload hands a file in for the band's step.
func (v visitor) upload(b storetest.Band, id, source string, version int, file []byte) (int, string) {
	v.t.Helper()
	path := fmt.Sprintf("/takes/%s?step=%s&version=%d&source=%s&start_ms=0", id, b.Step.ID, version, source)
	res, answer := v.ask("PUT", path, file)
	return res.StatusCode, string(answer)
}

// heard waits until a take has been listened to.
func (v visitor) heard(id string) api.TakeDetail {
	v.t.Helper()
	var take api.TakeDetail
	require.Eventually(v.t, func() bool {
		v.want(200, "GET", "/takes/"+id, nil, &take)
		return take.State != "waiting"
	}, time.Minute, 50*time.Millisecond)
	return take
}

// played renders the band's short step by a simulated clarinet.
func played(t *testing.T, p synth.Player) []byte {
	t.Helper()
	i, err := instrument.Get("clarinet")
	require.NoError(t, err)
	score, err := storetest.ShortStep.Score(exercise.Player{Instrument: i, Stage: 2}, store.Class{}.Conventions())
	require.NoError(t, err)
	p.Instrument, p.Room = i, -70
	sound, _ := p.Play(score, 48000)
	return wav.Encode(sound)
}

func newID() string { return uuid.NewString() }
