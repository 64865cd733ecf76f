package api

import (
	"context"
	"log/slog"
	"net/http"
	"strings"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"earlychorus/server/store"
)

// audited is what is written down of a director's doing, by route: whoever answers for
// the children must be able to say who did what. docs/audit.md is made from it.
var audited = map[string]string{
	"GET /takes/{take}":                                    "saw a take",
	"GET /takes/{take}/audio.wav":                          "heard a take",
	"GET /takes/{take}/audio.flac":                         "exported a take's sound",
	"GET /takes/{take}/measures.json":                      "exported a take's measures",
	"GET /takes/{take}/contour.csv":                        "exported a take's contour",
	"PUT /takes/{take}/review":                             "overruled",
	"PUT /takes/{take}/acts/{act}":                         "commented or overruled",
	"DELETE /takes/{take}/acts/{act}":                      "took a comment or a word back",
	"PUT /takes/{take}/voice/{act}":                        "left a voice note",
	"GET /classes/{class}/players/{player}/growth":         "saw a player's growth",
	"GET /classes/{class}/players/{player}/report.pdf":     "exported a player's report",
	"GET /classes/{class}/progress.{format:csv|json}":      "exported a class's progress",
	"GET /classes/{class}/gradebook.{format:csv|zip}":      "exported a gradebook",
	"GET /classes/{class}/everything.zip":                  "exported everything of a class",
	"GET /classes/{class}/players/{player}/everything.zip": "exported everything of a player",
	"POST /classes/{class}/roster":                         "changed the roster",
	"DELETE /classes/{class}/roster/{player}":              "took a player off the roster",
	"DELETE /classes/{class}/players/{player}":             "deleted a player",
	"POST /classes/{class}/players/{player}/pin":           "gave a player a new PIN",
	"POST /classes/{class}/cards.pdf":                      "printed cards with new PINs",
	"POST /classes/{class}/code":                           "gave the class a new code",
	"DELETE /classes/{class}/players/{player}/sessions":    "signed a player out",
	"POST /classes/{class}/directors":                      "invited a director",
	"DELETE /classes/{class}/directors/{director}":         "ended a director's right to the class",
	"PUT /classes/{class}/consents":                        "wrote consents down",
	"POST /classes/{class}/consents/list":                  "brought a list of consents in",
	"GET /classes/{class}/consents.csv":                    "exported consents",
	"PUT /schools/{school}/consent":                        "changed whether consent is asked for",
	"POST /classes/{class}/passes":                         "let somebody in by a pass",
	"DELETE /classes/{class}/passes/{pass}":                "ended a pass",
	"GET /players/{player}/growth":                         "saw a player's growth",
	"GET /players/{player}/report.pdf":                     "exported a player's report",
	"POST /invitations/{class}":                            "accepted to direct the class",
	"POST /classes/{class}/archive":                        "archived the class",
	"POST /schools/{school}/people":                        "added somebody to the school",
	"PUT /schools/{school}/people/{person}":                "changed who administers the school",
	"DELETE /schools/{school}/people/{person}":             "took somebody out of the school",
	"POST /schools/{school}/people/{person}/password":      "gave somebody a new password",
	"PUT /schools/{school}/sign-on":                        "changed how the school signs on",
	"DELETE /schools/{school}/sign-on":                     "ended the school's sign-on",
	"GET /schools/{school}/audit":                          "read what was done",
	"GET /schools/{school}/audit.csv":                      "exported what was done",
	"DELETE /classes/{class}/archive":                      "took the class out of the archive",
	"PUT /classes/{class}/settings":                        "changed the class's settings",
}

// Audited lists what is written down, by route.
func Audited() map[string]string { return audited }

// writtenDown writes what directors do into the audit log, once it was done.
func (a *API) writtenDown(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		answer := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
		next.ServeHTTP(answer, r)
		who := a.who(r.Context())
		action, ok := audited[r.Method+" "+strings.TrimPrefix(chi.RouteContext(r.Context()).RoutePattern(), "/api")]
		if !ok || who.Role == store.RolePlayer || answer.Status() >= http.StatusBadRequest || isLater(r) {
			return
		}
		line := store.Audited{
			Role:     who.Role,
			Subject:  &who.Subject,
			Action:   action,
			ClassID:  param(r, "class"),
			PlayerID: param(r, "player"),
			Object:   param(r, "take"),
		}
		// It is done: the line must be written though the asker is gone.
		if err := a.audit(context.WithoutCancel(r.Context()), line); err != nil {
			slog.Error("the audit log could not be written", "action", action, "error", err)
		}
	})
}

// isLater reports whether only a later part of a sound is asked for: it was noted at its
// beginning.
func isLater(r *http.Request) bool {
	asked := r.Header.Get("Range")
	return asked != "" && !strings.HasPrefix(asked, "bytes=0-")
}

// param is a number of the address; nil for none.
func param(r *http.Request, name string) *string {
	id := chi.URLParam(r, name)
	if !store.IsID(id) {
		return nil
	}
	return &id
}

// audit writes a line into the audit log.
func (a *API) audit(ctx context.Context, line store.Audited) error {
	line.At = a.Now()
	return a.Store.Audit(ctx, line)
}
