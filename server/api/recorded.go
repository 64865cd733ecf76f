package api

import (
	"context"
	"log/slog"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"earlychorus/server/store"
)

// note is what the log learns of a request on its way.
type note struct{ role store.Role }

type noteKey struct{}

// recorded writes a line of each answered request into the log: its route, never the
// numbers, names or words in it.
func (a *API) recorded(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		began := a.Now()
		about := &note{}
		answer := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
		r = r.WithContext(context.WithValue(r.Context(), noteKey{}, about))
		defer func() {
			took, route := a.Now().Sub(began), "the page"
			if in := chi.RouteContext(r.Context()); in != nil && in.RoutePattern() != "" {
				route = in.RoutePattern()
			}
			status := answer.Status()
			if status == 0 {
				status = http.StatusOK
			}
			if a.Watch != nil {
				a.Watch.Request(r.Method, route, status, took)
			}
			slog.Info(
				"request",
				"method", r.Method,
				"route", route,
				"status", status,
				"ms", float64(took.Round(100*time.Microsecond))/float64(time.Millisecond),
				"bytes", answer.BytesWritten(),
				"role", string(about.role),
				"request", middleware.GetReqID(r.Context()),
			)
		}()
		next.ServeHTTP(answer, r)
	})
}

// roleNoted tells the log as what somebody asks.
func (a *API) roleNoted(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if about, ok := r.Context().Value(noteKey{}).(*note); ok {
			about.role = a.who(r.Context()).Role
		}
		next.ServeHTTP(w, r)
	})
}
