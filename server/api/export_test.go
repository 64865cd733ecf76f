package api

import (
	"net/http"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/go-chi/chi/v5"
)

// EachRoute visits every route the server answers below /api.
func EachRoute(visit func(method, path string)) error {
	a := &API{sessions: scs.New()}
	r := chi.NewRouter()
	a.routes(r)
	return chi.Walk(r, func(method, path string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		visit(method, path)
		return nil
	})
}

// Impatient makes silence in a body end sooner, until it is undone.
func Impatient(after time.Duration) (undo func()) {
	was := silence
	silence = after
	return func() { silence = was }
}
