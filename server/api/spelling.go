package api

import (
	"net/http"
	"strings"

	"earlychorus/server/store"
)

// oneSpelling gives every number in an address its one spelling before anybody reads
// it: capitals, braces and missing hyphens are no numbers of their own.
func oneSpelling(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		parts := strings.Split(r.URL.Path, "/")
		for n, part := range parts {
			if id := store.ID(part); id != "" {
				parts[n] = id
			}
		}
		r.URL.Path, r.URL.RawPath = strings.Join(parts, "/"), ""
		next.ServeHTTP(w, r)
	})
}
