package api

import (
	"context"
	"net/http"

	"earlychorus/server/takeout"
)

// takeOutEverything answers a class as one ZIP file: GET
// /classes/{class}/everything.zip, with ?sounds=true the recordings too. It may take
// longer than other answers; it ends when nobody reads on.
func (a *API) takeOutEverything(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	var sounds takeout.Sounds
	if r.URL.Query().Get("sounds") == "true" {
		sounds = a.Recordings
	}
	attach(w, "application/zip", "everything.zip")
	if err := takeout.Class(
		context.WithoutCancel(r.Context()),
		w,
		a.Store,
		class,
		sounds,
		a.Now(),
	); err != nil {
		panic(http.ErrAbortHandler) // part of it is on its way: a cut-off file must not look whole
	}
	return nil
}
