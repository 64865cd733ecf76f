package api

import (
	"context"
	"time"

	"earlychorus/server/problem"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// ExceptionView is days on which a player is asked for less.
type ExceptionView struct {
	ID       string `json:"id"`
	PlayerID string `json:"player_id"`
	StepID   string `json:"step_id" doc:"empty: every step"`
	From     string `json:"from" format:"date"`
	To       string `json:"to" format:"date"`
	Why      string `json:"why"`
}

// exceptionsOf lists a class's exceptions that are not over on a day.
func (a *API) exceptionsOf(ctx context.Context, class store.Class, day time.Time) ([]ExceptionView, error) {
	exceptions, err := a.Store.ExceptionsSince(ctx, class.ID, day)
	out := []ExceptionView{}
	for _, e := range exceptions {
		shown := ExceptionView{
			ID:       e.ID,
			PlayerID: e.PlayerID,
			From:     view.Date(e.FirstDay),
			To:       view.Date(e.LastDay),
			Why:      e.Why,
		}
		if e.StepID != nil {
			shown.StepID = *e.StepID
		}
		out = append(out, shown)
	}
	return out, err
}

// exceptionInput excuses one player from a day to a day, both counted. Times of day
// do not matter: a school day is whole.
type exceptionInput struct {
	ClassPath
	Body struct {
		PlayerID string `json:"player_id" format:"uuid"`
		StepID   string `json:"step_id,omitempty" doc:"left out: every step"`
		From     string `json:"from" format:"date"`
		To       string `json:"to" format:"date"`
		Why      string `json:"why" maxLength:"100"`
	}
}

// addException refuses a player of another class, whoever asks, and days that end
// before they begin.
func (a *API) addException(ctx context.Context, in *exceptionInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	p, err := a.Store.PlayerOfClass(ctx, class.ID, in.Body.PlayerID)
	if err != nil {
		return nil, err
	}
	// Days have no time zone: a player is away on the school's days.
	from, errFrom := time.Parse(time.DateOnly, in.Body.From)
	to, errTo := time.Parse(time.DateOnly, in.Body.To)
	if errFrom != nil || errTo != nil || to.Before(from) {
		return nil, problem.Input("to", "give a first and a last day, in that order")
	}
	e := store.Exception{
		ID:       store.NewID(),
		PlayerID: p.ID,
		FirstDay: from,
		LastDay:  to,
		Why:      in.Body.Why,
	}
	if in.Body.StepID != "" {
		step, err := a.Store.StepOfClass(ctx, class.ID, in.Body.StepID)
		if err != nil {
			return nil, err
		}
		e.StepID = &step.ID
	}
	if err := a.Store.AddException(ctx, e); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

// exceptionPath is an exception of the class in the address; one of another class is
// not found.
type exceptionPath struct {
	ClassPath
	Exception string `path:"exception" format:"uuid"`
}

// endException asks everything of the player again from now on. The days that were
// excused stay excused.
func (a *API) endException(ctx context.Context, in *exceptionPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err == nil {
		err = a.Store.EndException(ctx, in.Exception, class.ID)
	}
	if err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}
