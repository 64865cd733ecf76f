package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"

	"earlychorus/server/store"
)

func newSessions(kept scs.Store) *scs.SessionManager {
	s := scs.New()
	s.Store = kept
	s.Lifetime = sessionLength
	s.Cookie.Name = "earlychorus"
	s.Cookie.HttpOnly = true
	s.Cookie.Secure = true // browsers count http on loopback as secure
	s.Cookie.SameSite = http.SameSiteStrictMode
	return s
}

const (
	directorKey = "director"
	playerKey   = "player"
)

// asker is who is signed in; at most one of the two is set.
type asker struct{ DirectorID, PlayerID string }

func (a *API) who(ctx context.Context) asker {
	return asker{a.sessions.GetString(ctx, directorKey), a.sessions.GetString(ctx, playerKey)}
}

// signIn begins a session under a fresh token, so that one planted before
// signing in is worth nothing.
func (a *API) signIn(ctx context.Context, key, id string) error {
	if err := a.sessions.RenewToken(ctx); err != nil {
		return err
	}
	a.sessions.Remove(ctx, directorKey)
	a.sessions.Remove(ctx, playerKey)
	a.sessions.Put(ctx, key, id)
	return nil
}

func (a *API) require(allowed func(asker) bool) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			who := a.who(r.Context())
			switch {
			case who == asker{}:
				fail(w, huma.Error401Unauthorized("Please sign in."))
			case !allowed(who):
				fail(w, store.ErrNotFound)
			default:
				next.ServeHTTP(w, r)
			}
		})
	}
}

func (a *API) requireDirector(next http.Handler) http.Handler {
	return a.require(func(w asker) bool { return w.DirectorID != "" })(next)
}

func (a *API) requirePlayer(next http.Handler) http.Handler {
	return a.require(func(w asker) bool { return w.PlayerID != "" })(next)
}

func (a *API) requireSomeone(next http.Handler) http.Handler {
	return a.require(func(asker) bool { return true })(next)
}

// sameOriginOnly refuses changes asked for by another site's page.
func sameOriginOnly(next http.Handler) http.Handler {
	return http.NewCrossOriginProtection().Handler(next)
}

// contentPolicy lets the page use its own files only; wasm is the core's ear.
var contentPolicy = strings.Join([]string{
	"default-src 'self'",
	"script-src 'self' 'wasm-unsafe-eval'",
	"style-src 'self' 'unsafe-inline'",
	"img-src 'self' data:",
	"font-src 'self' data:",
	"media-src 'self' blob:",
	"connect-src 'self'",
	"frame-ancestors 'none'",
	"base-uri 'none'",
	"form-action 'self'",
}, "; ")

func securityHeaders(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", contentPolicy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Permissions-Policy", "microphone=(self), camera=(), geolocation=()")
		next.ServeHTTP(w, r)
	})
}
