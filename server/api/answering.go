package api

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
)

// group is routes behind the same guards: typed ones, which stand in the document,
// and plain ones, which move files and streams.
type group struct {
	plain chi.Router
	typed huma.API
}

// newGroup is a set of routes behind the same guards, described in the document and
// plain alike.
func newGroup(r chi.Router, cfg huma.Config, guards ...func(http.Handler) http.Handler) group {
	inner := r.With(guards...)
	return group{inner, humachi.New(inner, cfg)}
}

// typedHandler parses, calls, and returns what is rendered; its error is given a
// status by the adapter.
type typedHandler[I, O any] func(context.Context, *I) (*O, error)

// answering makes errors answers.
func answering[I, O any](method, path string, h typedHandler[I, O]) typedHandler[I, O] {
	return func(ctx context.Context, in *I) (*O, error) {
		out, err := h(ctx, in)
		if err != nil {
			return nil, statusOf(err, method+" "+path)
		}
		return out, nil
	}
}

// get adds a described question. No route is added to huma but by these four, so
// that no handler's error is without its status, its route and its line in the log.
func get[I, O any](g group, path string, h typedHandler[I, O]) {
	huma.Get(g.typed, path, answering(http.MethodGet, path, h))
}

// post adds a described act that may not be repeated without being done twice.
func post[I, O any](g group, path string, h typedHandler[I, O]) {
	huma.Post(g.typed, path, answering(http.MethodPost, path, h))
}

// put adds a described act whose number the client made: to send it again is
// harmless.
func put[I, O any](g group, path string, h typedHandler[I, O]) {
	huma.Put(g.typed, path, answering(http.MethodPut, path, h))
}

// remove adds a described deletion.
func remove[I, O any](g group, path string, h typedHandler[I, O]) {
	huma.Delete(g.typed, path, answering(http.MethodDelete, path, h))
}

// plainHandler answers a request itself, or returns why not before it has written
// anything.
type plainHandler func(http.ResponseWriter, *http.Request) error

// ServeHTTP runs a handler that writes its own answer, such as a sound or a PDF.
// What it returns as an error must be returned before its first byte.
func (h plainHandler) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	if err := h(w, r); err != nil {
		fail(w, r, err)
	}
}

// files routes a plain handler; most bounds the request's body in bytes, 0 asks for
// none.
func (g group) files(method, path string, most int64, h plainHandler) {
	r := g.plain
	if most > 0 {
		r = r.With(requestSize(most))
	}
	r.Method(method, path, h)
}

// requestSize refuses larger bodies while they are read.
func requestSize(most int64) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			r.Body = http.MaxBytesReader(w, r.Body, most)
			next.ServeHTTP(w, r)
		})
	}
}

// answerJSON answers a plain route as a typed one would.
func answerJSON(w http.ResponseWriter, what any) {
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(what) // the asker may be gone
}
