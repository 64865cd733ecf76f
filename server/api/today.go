package api

import (
	"context"
	"time"

	"earlychorus/server/board"
	"earlychorus/server/problem"
	"earlychorus/server/view"
)

type classesOutput struct {
	Body struct {
		Classes []view.ClassName `json:"classes" nullable:"false"`
	}
}

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

type todayInput struct {
	Class string `path:"class" format:"uuid"`
	Day   string `             format:"date" query:"day" doc:"the school's today when left out"`
}

type todayOutput struct{ Body board.Today }

func (a *API) showToday(ctx context.Context, in *todayInput) (*todayOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	today := class.Day(a.Now())
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
	return &todayOutput{page}, nil
}
