package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/alexedwards/scs/v2"

	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// newSessions keeps sessions in the database, so that signing in holds over a
// restart and on every machine.
func newSessions(kept scs.Store) *scs.SessionManager {
	s := scs.New()
	s.Store = kept
	s.Lifetime = sessionLength
	s.Cookie.Name = "earlychorus"
	// No script may read it, ours included.
	s.Cookie.HttpOnly = true
	s.Cookie.Secure = true // browsers count http on loopback as secure
	s.Cookie.SameSite = http.SameSiteStrictMode
	return s
}

// Keys of a session: as what somebody signed in, and as whom.
const (
	roleKey    = "role"
	subjectKey = "subject"
)

// who is who asks, nobody included.
func (a *API) who(ctx context.Context) store.Asker {
	return store.Asker{
		Role:    store.Role(a.sessions.GetString(ctx, roleKey)),
		Subject: a.sessions.GetString(ctx, subjectKey),
	}
}

// signIn begins a session under a fresh token, so that one planted before
// signing in is worth nothing.
func (a *API) signIn(ctx context.Context, who store.Asker) error {
	if err := a.sessions.RenewToken(ctx); err != nil {
		return err
	}
	a.sessions.Put(ctx, roleKey, string(who.Role))
	a.sessions.Put(ctx, subjectKey, who.Subject)
	return nil
}

// require lets those through whose role may do something; to others it is as if
// nothing were there.
func (a *API) require(deed store.Deed) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			who := a.who(r.Context())
			switch {
			case who == store.Asker{}:
				fail(w, r, problem.Of(problem.NotSignedIn, "Please sign in.", nil))
			case !who.May(deed):
				fail(w, r, store.ErrNotFound)
			default:
				next.ServeHTTP(w, r)
			}
		})
	}
}

// sameOriginOnly refuses changes asked for by another site's page.
func sameOriginOnly(next http.Handler) http.Handler {
	return http.NewCrossOriginProtection().Handler(next)
}

// private keeps every answer out of every cache: on a shared laptop the next player
// must find nothing.
func private(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Cache-Control", "no-store")
		next.ServeHTTP(w, r)
	})
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

// securityHeaders lets the page load nothing from anywhere else, be framed by
// nobody, and use the microphone and no other device.
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
