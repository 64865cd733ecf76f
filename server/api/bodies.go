package api

import (
	"io"
	"net/http"
	"time"
)

// bodyTime is how long a whole body may take: a take over weak Wi-Fi.
const bodyTime = requestTime

// silence is how long a sender may say nothing.
var silence = 30 * time.Second

// bodiesEnd cuts off whoever never finishes what they send: a line held open costs
// others theirs.
func bodiesEnd(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Body == nil || r.Body == http.NoBody {
			next.ServeHTTP(w, r)
			return
		}
		r.Body = &timedBody{
			ReadCloser: r.Body,
			line:       http.NewResponseController(w),
			end:        time.Now().Add(bodyTime),
		}
		next.ServeHTTP(w, r)
	})
}

// timedBody gives each read its time, and all of them theirs.
type timedBody struct {
	io.ReadCloser

	line *http.ResponseController
	end  time.Time
}

// Read reads on, within the time there is.
func (b *timedBody) Read(p []byte) (int, error) {
	until := time.Now().Add(silence)
	if until.After(b.end) {
		until = b.end
	}
	_ = b.line.SetReadDeadline(until) // a line without deadlines has its server's
	n, err := b.ReadCloser.Read(p)
	if err == io.EOF {
		_ = b.line.SetReadDeadline(time.Time{}) // what comes next on this line is another request
	}
	return n, err
}
