package api

import (
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"time"

	"earlychorus/server/problem"

	"github.com/go-chi/httprate"
)

// limits bound how often an account may be tried, never an address: a whole
// school shares one.
type limits struct{ accounts, codes *httprate.RateLimiter }

const (
	triesPerAccount = 10 // a four-digit PIN holds out for weeks
	triesPerCode    = 400
	limitWindow     = 15 * time.Minute
)

// newLimits counts in memory: a restart forgives, which is a risk of minutes.
// Several machines each count their own.
func newLimits() limits {
	return limits{
		accounts: httprate.NewRateLimiter(triesPerAccount, limitWindow),
		codes:    httprate.NewRateLimiter(triesPerCode, limitWindow),
	}
}

// byAccount reads whom a sign-in is for and counts the try.
func (l limits) byAccount(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		// Read here and given back: whom a try is for stands in the body alone.
		body, err := io.ReadAll(http.MaxBytesReader(w, r.Body, largestJSON))
		if err != nil {
			fail(w, r, err)
			return
		}
		r.Body = io.NopCloser(bytes.NewReader(body))
		var account struct {
			Email    string `json:"email"`
			PlayerID string `json:"player_id"`
			Code     string `json:"code"`
		}
		_ = json.Unmarshal(body, &account) // the handler says what is wrong with it
		// Small and capital letters are one account, or each spelling would have tries of its own.
		key, limiter := strings.ToLower(account.Email+account.PlayerID), l.accounts
		if key == "" {
			// A class's code is typed by thirty children in one minute, so it has more tries.
			key, limiter = strings.ToUpper(account.Code), l.codes
		}
		if limiter.OnLimit(w, r, key) {
			fail(
				w,
				r,
				problem.Of(
					problem.TooManyTries,
					"Too many tries. Wait a quarter of an hour, or ask your director.",
					nil,
				),
			)
			return
		}
		next.ServeHTTP(w, r)
	})
}
