package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/contour"
	"earlychorus/core/roster"
	"earlychorus/core/verdict"
)

// Others are takes to compare one with.
type Others struct {
	Previous *OtherTake  `json:"previous,omitempty" doc:"the player's own before it"`
	Next     *OtherTake  `json:"next,omitempty" doc:"the player's own after it"`
	Before   *OtherTake  `json:"player_before,omitempty" doc:"of the player before in the class's order, of the same step and day"`
	After    *OtherTake  `json:"player_after,omitempty" doc:"of the player after"`
	Best     *OtherTake  `json:"best,omitempty" doc:"the player's own that came out best"`
	Mates    []OtherTake `json:"mates" doc:"of the same step on the same instrument; names are told when asked for" nullable:"false"`
}

// OtherTake names a take.
type OtherTake struct {
	ID     string         `json:"id"`
	Name   string         `json:"name"`
	Day    string         `json:"day" format:"date"`
	Result verdict.Result `json:"result" enum:"clean,nearly,not-yet,cant-tell"`
}

// othersOutput is other takes to listen beside this one.
type othersOutput struct{ Body Others }

// mostMates bounds the other players' takes: as many as can be listened to, not a
// ranking of a class.
const mostMates = 8

// showOthers lists what a director may lay beside a take.
func (a *API) showOthers(ctx context.Context, in *TakePath) (*othersOutput, error) {
	t, err := a.Store.TakeFor(ctx, a.who(ctx), in.Take)
	if err != nil {
		return nil, err
	}
	rows, err := a.Store.TakesBeside(ctx, t, mostMates)
	if err != nil {
		return nil, err
	}
	out := &othersOutput{Others{Mates: []OtherTake{}}}
	for _, r := range rows {
		one := OtherTake{
			r.TakeID,
			roster.Person{FirstName: r.FirstName, LastName: r.LastName}.FullName(),
			r.Day.Format(time.DateOnly),
			r.Result,
		}
		switch r.Kind {
		case "previous":
			out.Body.Previous = &one
		case "best":
			out.Body.Best = &one
		case "next":
			out.Body.Next = &one
		case "player-before":
			out.Body.Before = &one
		case "player-after":
			out.Body.After = &one
		default:
			out.Body.Mates = append(out.Body.Mates, one)
		}
	}
	return out, nil
}

// spectrogramOutput is the picture in numbers, a byte for each moment and pitch.
type spectrogramOutput struct{ Body contour.Spectrogram }

// showSpectrogram works the picture out when it is asked for. Hardly one take in a
// hundred is looked at so closely, and kept pictures would outweigh the recordings.
func (a *API) showSpectrogram(ctx context.Context, in *TakePath) (*spectrogramOutput, error) {
	t, err := a.Store.TakeFor(ctx, a.who(ctx), in.Take)
	if err != nil {
		return nil, err
	}
	// Looked at from the sound itself: the contour knows pitch and loudness, and nothing of
	// overtones.
	if err := gone(t.SoundGoneAt); err != nil {
		return nil, err
	}
	sound, err := a.Recordings.Get(ctx, t.Sound)
	if err != nil {
		return nil, err
	}
	return &spectrogramOutput{contour.SpectrogramOf(sound)}, nil
}

// downloadMeasures answers everything measured in a take as JSON, in the words of
// docs/formats.md.
func (a *API) downloadMeasures(w http.ResponseWriter, r *http.Request) error {
	t, err := a.Store.TakeFor(r.Context(), a.who(r.Context()), chi.URLParam(r, "take"))
	if err != nil {
		return err
	}
	found, err := a.Store.AnalysisOf(r.Context(), t.ID)
	if err != nil {
		return err
	}
	attach(w, "application/json", t.ID+".json")
	out := json.NewEncoder(w)
	out.SetIndent("", "  ")
	_ = out.Encode(
		map[string]any{
			"take":     t.ID,
			"version":  found.Version,
			"score":    t.Score,
			"analysis": found.Measured,
			"verdict":  found.Verdict,
		},
	) // the asker may be gone
	return nil
}
