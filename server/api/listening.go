package api

import (
	"context"

	"earlychorus/core/progress"
	"earlychorus/server/listening"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// listenInput asks for so many minutes' worth of excerpts. A listening of today that
// is under way goes on unless it is asked for afresh.
type listenInput struct {
	ClassPath
	Minutes int  `query:"minutes" minimum:"1" maximum:"60" default:"5"`
	Afresh  bool `query:"afresh" doc:"choose anew, even when a listening of today is under way"`
}

// listenOutput is what was chosen, in order, with why, and how far the director has
// come.
type listenOutput struct{ Body listening.ListeningView }

// showListening goes on with the day's listening, or chooses what to hear.
func (a *API) showListening(ctx context.Context, in *listenInput) (*listenOutput, error) {
	who := a.who(ctx)
	class, err := a.Store.ClassFor(ctx, who, in.Class)
	if err != nil {
		return nil, err
	}
	ask := listening.Ask{
		Director: who.Subject,
		Class:    class,
		Minutes:  in.Minutes,
		Afresh:   in.Afresh,
	}
	page, err := listening.Of(ctx, a.Store, ask, a.Now())
	if err != nil {
		return nil, err
	}
	return &listenOutput{page}, nil
}

// placeInput keeps the place, so that a director who is called away goes on where
// they were, on any machine.
type placeInput struct {
	ClassPath
	Body struct {
		Place    int     `json:"place" minimum:"0"`
		Spent    float64 `json:"spent_s" minimum:"0"`
		Listened string  `json:"listened,omitempty" doc:"the take that was listened to"`
	}
}

// keepPlace remembers where the listening stands, for every device.
func (a *API) keepPlace(ctx context.Context, in *placeInput) (*struct{}, error) {
	director := a.who(ctx).Subject
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if in.Body.Listened != "" {
		if _, err := a.Store.TakeFor(ctx, a.who(ctx), in.Body.Listened); err != nil {
			return nil, err
		}
	}
	l := store.Listening{
		DirectorID: director,
		ClassID:    class.ID,
		Day:        class.Day(a.Now()),
		Place:      in.Body.Place,
		SpentS:     in.Body.Spent,
	}
	return nil, a.Store.KeepPlace(ctx, l, in.Body.Listened, a.Now().UTC())
}

// weightsInput is how much each reason counts in the choice, by this director.
type weightsInput struct {
	ClassPath
	Body struct {
		Weights progress.Weights `json:"weights"`
	}
}

// weighReasons keeps how much each reason to hear somebody counts in a class.
func (a *API) weighReasons(ctx context.Context, in *weightsInput) (*struct{}, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if err := in.Body.Weights.Check(); err != nil {
		return nil, problem.Input("weights", err.Error())
	}
	return nil, a.Store.SaveWeights(ctx, class.ID, in.Body.Weights)
}
