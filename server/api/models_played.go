package api

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// ModelView is a step as a director played it.
type ModelView struct {
	ID         string  `json:"id"`
	Instrument string  `json:"instrument" doc:"empty: for all"`
	Seconds    float64 `json:"seconds"`
	MadeAt     string  `json:"made_at" format:"date-time"`
	Mine       bool    `json:"mine" doc:"the asker may let it go"`
}

// modelsInput asks what was played of a step.
type modelsInput struct {
	ClassPath
	Body struct {
		Kind       string         `json:"kind"`
		Parameters map[string]any `json:"parameters"`
	}
}

// modelsOutput lists what was played of a step.
type modelsOutput struct {
	Body struct {
		Models []ModelView `json:"models" nullable:"false"`
	}
}

// listModels lists what the class's directors have played of a step.
func (a *API) listModels(ctx context.Context, in *modelsInput) (*modelsOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	step, err := PlanItem{Kind: in.Body.Kind, Parameters: in.Body.Parameters}.item()
	if err != nil {
		return nil, err
	}
	models, err := a.Store.ModelsOf(ctx, class.ID, [][]byte{store.AsksKey(step.Step)})
	out := &modelsOutput{}
	out.Body.Models = []ModelView{}
	for _, m := range models {
		out.Body.Models = append(out.Body.Models, ModelView{
			ID:         m.ID,
			Instrument: m.Instrument,
			Seconds:    m.Seconds,
			MadeAt:     m.MadeAt.UTC().Format(time.RFC3339),
			Mine:       m.DirectorID == a.who(ctx).Subject,
		})
	}
	return out, err
}

const (
	longestModel  = 120 // seconds
	largestModel  = 32 << 20
	shortestModel = 0.3 // seconds, trimmed
)

// keepModel keeps a director's own playing of a step, trimmed to its sound and leveled: PUT, a
// WAV file; ?kind= and ?parameters= say of what, ?instrument= for whom.
func (a *API) keepModel(w http.ResponseWriter, r *http.Request) error {
	if _, err := a.classAsked(r); err != nil {
		return err
	}
	id, q := chi.URLParam(r, "model"), r.URL.Query()
	if !store.IsID(id) {
		return problem.Input("model", "number a model with a UUID")
	}
	step, err := exercise.Parse(q.Get("kind"), []byte(q.Get("parameters")))
	if err != nil {
		return err
	}
	of := q.Get("instrument")
	if _, err := instrument.Get(of); of != "" && err != nil {
		return problem.Input("instrument", "choose an instrument of the table, or none for all")
	}
	sound, err := wav.Decode(r.Body, longestModel)
	switch {
	case errors.Is(err, wav.ErrTooLong):
		return problem.Of(
			problem.TooLarge, fmt.Sprintf("A model lasts %d seconds at most. Play it shorter.", longestModel), nil,
		)
	case err != nil:
		return problem.Of(problem.UnknownFormat, "This recording cannot be read: "+err.Error(), nil)
	}
	sound = sound.Model()
	if sound.Seconds() < shortestModel {
		return problem.Of(problem.Unusable, "Nothing is heard in this recording. Record it again.", nil)
	}
	packed, err := flac.Encode(sound)
	if err != nil {
		return err
	}
	full, err := a.Store.KeepModel(r.Context(), store.Model{
		ID:         id,
		DirectorID: a.who(r.Context()).Subject,
		Asks:       store.AsksKey(step),
		Instrument: of,
		Sound:      packed,
		Seconds:    sound.Seconds(),
		MadeAt:     a.Now().UTC(),
	})
	if full {
		return problem.Of(problem.Conflict, "There is no room for another model. Delete one you do not need.", nil)
	}
	if err != nil {
		return err
	}
	w.WriteHeader(http.StatusNoContent)
	return nil
}

// modelPath names a model.
type modelPath struct {
	Class string `path:"class" format:"uuid"`
	Model string `path:"model" format:"uuid"`
}

// dropModel lets a director's own model go.
func (a *API) dropModel(ctx context.Context, in *modelPath) (*struct{}, error) {
	if _, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class); err != nil {
		return nil, err
	}
	return nil, a.Store.DropModel(ctx, in.Model, a.who(ctx).Subject)
}

// playModel answers a model to a director of the class.
func (a *API) playModel(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	return a.serveModel(w, r, class.ID)
}

// hearModel answers a model to a player of the class.
func (a *API) hearModel(w http.ResponseWriter, r *http.Request) error {
	p, err := a.Store.Player(r.Context(), a.who(r.Context()).Subject)
	if err != nil {
		return err
	}
	return a.serveModel(w, r, p.ClassID)
}

func (a *API) serveModel(w http.ResponseWriter, r *http.Request, classID string) error {
	if !store.IsID(chi.URLParam(r, "model")) {
		return store.ErrNotFound
	}
	m, err := a.Store.ModelOf(r.Context(), classID, chi.URLParam(r, "model"))
	if err != nil {
		return err
	}
	sound, err := flac.Decode(bytes.NewReader(m.Sound), longestModel)
	if err != nil {
		return err
	}
	serveWAV(w, r, bytes.NewReader(wav.Encode(sound)), m.MadeAt)
	return nil
}
