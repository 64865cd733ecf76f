package api

import (
	"context"
	"crypto/rand"
	"fmt"
	"math"
	"net/http"
	"net/netip"
	"runtime"
	"time"

	"github.com/go-chi/chi/v5/middleware"
	"golang.org/x/crypto/bcrypt"

	"earlychorus/server/guessing"
	"earlychorus/server/problem"
)

// deviceCookie tells devices apart that have signed somebody in; it says nothing else.
const deviceCookie = "__Host-device"

// longestDevice is letters of what a cookie of ours says.
const longestDevice = 64

type askerKey struct{}

// from is where a request comes from.
type from struct {
	device string // of our cookie; "" for none yet
	agent  string
	site   string // where people reach the program
	writer http.ResponseWriter
}

// whence keeps for typed handlers what they need to know of a request and cannot see.
func (a *API) whence(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		f := from{agent: r.UserAgent(), site: a.address(r), writer: w}
		if c, err := r.Cookie(deviceCookie); err == nil && len(c.Value) <= longestDevice {
			f.device = c.Value
		}
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), askerKey{}, f)))
	})
}

func fromOf(ctx context.Context) from {
	f, _ := ctx.Value(askerKey{}).(from) // none in tests of single handlers
	return f
}

// addressOf is the network address that asks.
func addressOf(ctx context.Context) netip.Addr { return middleware.GetClientIPAddr(ctx) }

// deviceLife is how long a device is known.
const deviceLife = 365 * 24 * time.Hour

// remember knows the device from now on as one that has let somebody in.
func (a *API) remember(ctx context.Context, subject string) error {
	f := fromOf(ctx)
	if f.writer == nil {
		return nil
	}
	if f.device == "" {
		f.device = rand.Text()
		http.SetCookie(f.writer, &http.Cookie{
			Name:     deviceCookie,
			Value:    f.device,
			Path:     "/",
			MaxAge:   int(deviceLife.Seconds()),
			HttpOnly: true,
			Secure:   true,
			SameSite: http.SameSiteStrictMode,
		})
	}
	return a.guard().Remember(ctx, f.device, subject, a.Now())
}

func (a *API) guard() guessing.Guard { return guessing.Guard{Store: a.Store} }

// tooEarly says how long to wait before the next try.
func tooEarly(ctx context.Context, wait time.Duration) error {
	if w := fromOf(ctx).writer; w != nil {
		w.Header().Set("Retry-After", fmt.Sprint(int(math.Ceil(wait.Seconds()))))
	}
	return problem.Of(
		problem.TooManyTries,
		fmt.Sprintf("That was wrong too often. Wait %s, or ask your director for a new PIN.", inWords(wait)),
		nil,
	)
}

// inWords is a wait as people say it.
func inWords(wait time.Duration) string {
	if wait <= 90*time.Second {
		return fmt.Sprintf("%d seconds", int(math.Ceil(wait.Seconds())))
	}
	return fmt.Sprintf("%d minutes", int(math.Ceil(wait.Minutes())))
}

// hashing bounds how many secrets are compared at once: each costs a core for a while,
// on purpose, and pages need theirs meanwhile.
var hashing = make(chan struct{}, max(1, runtime.NumCPU()/2))

// matches compares a secret with its hash. It takes as long for nobody as for somebody,
// so that time does not tell which emails have accounts.
func matches(ctx context.Context, hash, secret string) (bool, error) {
	select {
	case hashing <- struct{}{}:
		defer func() { <-hashing }()
	case <-ctx.Done():
		return false, ctx.Err()
	}
	if hash == "" {
		_ = bcrypt.CompareHashAndPassword(nobodysHash(), []byte(secret))
		return false, nil
	}
	return bcrypt.CompareHashAndPassword([]byte(hash), []byte(secret)) == nil, nil
}

// manyGuesses is from how many wrong PINs on a director is told: children mistype.
const manyGuesses = 30

// guessed is how many wrong PINs strangers tried in a class, when there were many.
func (a *API) guessed(ctx context.Context, classID string) (int, error) {
	n, err := a.guard().OfClass(ctx, classID, a.Now())
	if n < manyGuesses {
		n = 0
	}
	return n, err
}
