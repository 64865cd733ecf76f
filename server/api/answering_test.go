package api

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// Whatever a handler returns is answered with its status, in the same shape by
// typed and plain handlers; what is nobody's fault is logged with its route.
func TestErrorsBecomeAnswers(t *testing.T) {
	var logged bytes.Buffer
	before := slog.Default()
	slog.SetDefault(slog.New(slog.NewTextHandler(&logged, nil)))
	t.Cleanup(func() { slog.SetDefault(before) })

	for _, c := range []struct {
		err    error
		status int
		says   string
	}{
		{store.ErrNotFound, 404, "not yours to see"},
		{fmt.Errorf("deep inside: %w", store.ErrNotFound), 404, "not yours to see"},
		{problem.Input("day", "write the day as 2026-11-24"), 422, "body.day"},
		{problem.Of(problem.TooLarge, "Too long.", nil), 413, "Too long."},
		{problem.Of(problem.UnknownFormat, "No WAV.", errors.New("offset 3")), 415, "No WAV."},
		{problem.Of(problem.Conflict, "Changed meanwhile.", nil), 409, "Changed"},
		{problem.Of(problem.NotSignedIn, "Please sign in.", nil), 401, "sign in"},
		{problem.Of(problem.TooManyTries, "Wait.", nil), 429, "Wait."},
		{exercise.ParameterError{Field: "beats", Remedy: "hold for 2 to 8 beats"}, 422, "body.beats"},
		{exercise.UnknownKindError{Key: "kazoo"}, 422, "body.kind"},
		{exercise.ErrNotFor, 422, "not for this instrument"},
		{errors.New("the disk is on fire"), 500, "on our side"},
	} {
		r := chi.NewRouter()
		g := newGroup(r, huma.DefaultConfig("test", "1"))
		get(g, "/typed", func(context.Context, *struct{}) (*struct{}, error) { return nil, c.err })
		g.files("GET", "/plain", 0, func(http.ResponseWriter, *http.Request) error { return c.err })
		for _, path := range []string{"/typed", "/plain"} {
			logged.Reset()
			w := httptest.NewRecorder()
			r.ServeHTTP(w, httptest.NewRequest("GET", path, nil))
			assert.Equal(t, c.status, w.Code, "%v %s", c.err, path)
			assert.Contains(t, w.Body.String(), c.says, path)
			assert.Equal(t, "application/problem+json", w.Header().Get("Content-Type"))
			var answer struct {
				Status int `json:"status"`
			}
			require.NoError(t, json.Unmarshal(w.Body.Bytes(), &answer))
			assert.Equal(t, c.status, answer.Status)
			assert.NotContains(t, w.Body.String(), "on fire", "an inner error is told to nobody")
			if c.status == 500 {
				assert.Contains(t, logged.String(), "route=\"GET "+path+"\"")
				assert.Contains(t, logged.String(), "status=500")
				assert.Contains(t, logged.String(), "on fire")
			} else {
				assert.Empty(t, logged.String())
			}
		}
	}
}

func TestBodiesAreBounded(t *testing.T) {
	r := chi.NewRouter()
	newGroup(
		r,
		huma.DefaultConfig("test", "1"),
	).files("PUT", "/file", 4, func(_ http.ResponseWriter, r *http.Request) error {
		_, err := new(bytes.Buffer).ReadFrom(r.Body)
		return err
	})
	for body, status := range map[string]int{"four": 200, "fives": 413} {
		w := httptest.NewRecorder()
		r.ServeHTTP(w, httptest.NewRequest("PUT", "/file", strings.NewReader(body)))
		assert.Equal(t, status, w.Code, body)
	}
}
