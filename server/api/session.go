package api

import (
	"context"
	"net/http"
	"strings"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"

	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// keptSessions are in the database, so that signing in holds over a restart and on every
// machine, and ending one holds at once.
type keptSessions struct {
	*postgresstore.PostgresStore

	store *store.Store
}

// Find returns a session that goes on, and notes that it was heard of.
func (k keptSessions) Find(token string) (data []byte, found bool, err error) {
	return k.store.SessionData(context.Background(), token)
}

// newSessions reads and writes sessions for requests.
func (a *API) newSessions(kept scs.Store) *scs.SessionManager {
	s := scs.New()
	s.Store = kept
	s.Lifetime = sessionLength
	s.ErrorFunc = fail
	// The prefix keeps pages of neighbouring hosts from setting it.
	s.Cookie.Name = "__Host-earlychorus"
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

// idleShared is how long a session on a shared device goes on without a sign.
const idleShared = 30 * time.Minute

// signIn begins a session under a fresh token, so that one planted before
// signing in is worth nothing.
func (a *API) signIn(ctx context.Context, who store.Asker, shared bool) error {
	if err := a.sessions.RenewToken(ctx); err != nil {
		return err
	}
	a.sessions.Put(ctx, roleKey, string(who.Role))
	a.sessions.Put(ctx, subjectKey, who.Subject)
	token, _, err := a.sessions.Commit(ctx)
	if err != nil {
		return err
	}
	idle := time.Duration(0)
	if shared {
		idle = idleShared
	}
	return a.Store.OpenSession(ctx, token, who, browserOf(fromOf(ctx).agent), idle)
}

// signedIn lets everybody through who is somebody.
func (a *API) signedIn(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if a.who(r.Context()) == (store.Asker{}) {
			fail(w, r, problem.Of(problem.NotSignedIn, "Please sign in.", nil))
			return
		}
		next.ServeHTTP(w, r)
	})
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

// sameOriginOnly refuses changes asked for by another site's page. Behind a proxy that
// asks under another name, the public address is ours too.
func (a *API) sameOriginOnly() func(http.Handler) http.Handler {
	p := http.NewCrossOriginProtection()
	if a.Public != nil {
		_ = p.AddTrustedOrigin(a.Public.Scheme + "://" + a.Public.Host) // checked where it was read
	}
	p.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		fail(
			w,
			r,
			problem.Of(problem.Foreign, "This was asked for by another site's page. Open ours, and try there.", nil),
		)
	}))
	return p.Handler
}

// address is where the program is for whoever reads it on paper.
func (a *API) address(r *http.Request) string {
	switch {
	case a.Public != nil:
		return a.Public.String()
	case r.TLS != nil:
		return "https://" + r.Host
	}
	return "http://" + r.Host
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
var contentPolicy = []string{
	"default-src 'self'",
	"script-src 'self' 'wasm-unsafe-eval'",
	"img-src 'self' data:",
	"font-src 'self' data:",
	"media-src 'self' blob:",
	"connect-src 'self'",
	"frame-ancestors 'none'",
	"base-uri 'none'",
	"form-action 'self'",
}

// aYear is how long browsers ask by HTTPS alone once they were told.
const aYear = "max-age=31536000"

// securityHeaders lets the page load nothing from anywhere else, be framed by
// nobody, and use the microphone and no other device.
func (a *API) securityHeaders(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", strings.Join(append(contentPolicy, "style-src 'self'"), "; "))
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Permissions-Policy", "microphone=(self), camera=(), geolocation=()")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		if r.TLS != nil || a.Public != nil && a.Public.Scheme == "https" {
			h.Set("Strict-Transport-Security", aYear)
		}
		next.ServeHTTP(w, r)
	})
}
