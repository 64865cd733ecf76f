package api

import (
	"context"
	"net/http"

	"github.com/go-chi/chi/v5"

	"earlychorus/server/takeout"
)

// takeOutEverything answers a class as one ZIP file: GET
// /classes/{class}/everything.zip, with ?sounds=true the recordings too. It may take
// takeOutEverything packs all that is kept of a class, with recordings where they are asked for.
func (a *API) takeOutEverything(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	a.pack(w, r, takeout.Of{Class: class})
	return nil
}

// takeOutPlayer packs all that is kept of one child, for whoever has a right to it.
func (a *API) takeOutPlayer(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	player, err := a.Store.PlayerOfClass(r.Context(), class.ID, chi.URLParam(r, "player"))
	if err != nil {
		return err
	}
	a.pack(w, r, takeout.Of{Class: class, Player: &player})
	return nil
}

func (a *API) pack(w http.ResponseWriter, r *http.Request, of takeout.Of) {
	var sounds takeout.Sounds
	if r.URL.Query().Get("sounds") == "true" {
		sounds = a.Recordings
	}
	attach(w, "application/zip", "everything.zip")
	if err := takeout.Pack(context.WithoutCancel(r.Context()), w, a.Store, of, sounds, a.Now()); err != nil {
		panic(http.ErrAbortHandler) // part of it is on its way: a cut-off file must not look whole
	}
}
