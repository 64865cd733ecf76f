package api

import (
	"net/http"

	"github.com/alexedwards/scs/v2"
	"github.com/go-chi/chi/v5"
)

// EachRoute visits every route the server answers below /api.
func EachRoute(visit func(method, path string)) error {
	a := &API{sessions: scs.New(), limits: newLimits()}
	r := chi.NewRouter()
	a.routes(r)
	return chi.Walk(r, func(method, path string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		visit(method, path)
		return nil
	})
}
