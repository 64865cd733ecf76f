package api

import (
	"context"
	"time"

	"earlychorus/server/board"
	"earlychorus/server/problem"
	"earlychorus/server/view"
)

// classesOutput is every class the asker directs: a handful, so it is not paged.
type classesOutput struct {
	Body struct {
		Classes []view.ClassName `json:"classes" nullable:"false"`
	}
}

// listClasses leaves out no class, archived ones included: they are still read.
func (a *API) listClasses(ctx context.Context, _ *struct{}) (*classesOutput, error) {
	classes, err := a.Store.ClassesFor(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	out := &classesOutput{}
	out.Body.Classes = []view.ClassName{}
	for _, c := range classes {
		out.Body.Classes = append(out.Body.Classes, view.ClassNameOf(c))
	}
	return out, nil
}

// todayInput is a day of the school's, in its own time zone: at eleven at night in
// one place it is tomorrow in another.
type todayInput struct {
	Class string `path:"class" format:"uuid"`
	Day   string `             format:"date" query:"day" doc:"the school's today when left out"`
}

// todayOutput is the board.
type todayOutput struct{ Body board.Today }

// showToday joins nothing itself: package board does, and is tested without a
// server.
func (a *API) showToday(ctx context.Context, in *todayInput) (*todayOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	today := class.Day(a.Now())
	// The school's today, not the server's: they may be on two sides of midnight.
	day := today
	if in.Day != "" {
		if day, err = time.Parse(time.DateOnly, in.Day); err != nil {
			return nil, problem.Input("day", "write the day as 2026-11-24")
		}
	}
	page, err := board.Of(ctx, a.Store, class, day, today)
	if err != nil {
		return nil, err
	}
	page.Guessed, err = a.guessed(ctx, class.ID)
	return &todayOutput{page}, err
}
