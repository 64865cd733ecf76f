package api

import (
	"context"

	"earlychorus/core/example"
	"earlychorus/core/exercise"
	"earlychorus/core/scores"
)

// exampleInput asks what conventions would make of one instrument and stage, before
// they are saved.
type exampleInput struct {
	ClassPath
	Body struct {
		Conventions exercise.Conventions `json:"conventions"`
		Instrument  string               `json:"instrument"`
		Stage       scores.Stage         `json:"stage" minimum:"1" maximum:"4"`
	}
}

// exampleOutput is the effects in words. Music is worked out here and never in the
// page.
type exampleOutput struct {
	Body struct {
		Effects []example.Effect `json:"effects" nullable:"false"`
	}
}

// showExample works a small example out under conventions that are being set.
func (a *API) showExample(ctx context.Context, in *exampleInput) (*exampleOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	c := in.Body.Conventions
	if err := c.Check(); err != nil {
		return nil, err
	}
	who, err := NotationAsked{Instrument: in.Body.Instrument, Stage: in.Body.Stage}.player(class, class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	out := &exampleOutput{}
	out.Body.Effects = example.Of(who, c)
	return out, nil
}
