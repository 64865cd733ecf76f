package api

import (
	"context"

	"earlychorus/core/instrument"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// tryInput names the instrument of a player who is not there.
type tryInput struct {
	ClassPath
	Instrument string `path:"instrument" maxLength:"40"`
}

// TrialPage is a player's page to be tried out.
type TrialPage struct {
	Practice    practicepage.Practice `json:"practice"`
	Today       string                `json:"today" format:"date"`
	Instruments []KindChoice          `json:"instruments" doc:"to try it as" nullable:"false"`
}

type trialOutput struct{ Body TrialPage }

// tryPractice shows a director what a player would see. Nobody is made for it, and nothing is
// kept.
func (a *API) tryPractice(ctx context.Context, in *tryInput) (*trialOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	i, err := instrument.Get(in.Instrument)
	if err != nil {
		return nil, store.ErrNotFound
	}
	page, err := practicepage.Trial(ctx, a.Store, class, i, a.Now())
	if err != nil {
		return nil, err
	}
	out := TrialPage{Practice: page, Today: view.Date(class.Day(a.Now())), Instruments: []KindChoice{}}
	for _, i := range instrument.Band() {
		out.Instruments = append(out.Instruments, KindChoice{i.Key, i.Name})
	}
	return &trialOutput{out}, nil
}
