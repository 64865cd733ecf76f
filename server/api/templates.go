package api

import (
	"context"
	"sync"

	"github.com/google/uuid"

	"earlychorus/core/exercise"
	"earlychorus/core/plan"
	"earlychorus/server/store"
)

// Template is a director's own week to begin from.
type Template struct {
	ID    string     `json:"id"`
	Name  string     `json:"name"`
	Items []PlanItem `json:"items" nullable:"false"`
}

// templatesOutput is the director's own weeks to begin from, by name.
type templatesOutput struct {
	Body struct {
		Templates []Template `json:"templates" nullable:"false"`
	}
}

// listTemplates lists the asker's own. They belong to a director and not to a class,
// for one plans several classes alike.
func (a *API) listTemplates(ctx context.Context, _ *struct{}) (*templatesOutput, error) {
	rows, err := a.Store.Templates(ctx, a.who(ctx).Subject)
	if err != nil {
		return nil, err
	}
	out := &templatesOutput{}
	out.Body.Templates = []Template{}
	// Ours come last: a director's own weeks are nearer.
	for _, t := range rows {
		out.Body.Templates = append(out.Body.Templates, Template{t.ID, t.Name, viewsOf(t.Items)})
	}
	for _, w := range readyWeeks() {
		out.Body.Templates = append(out.Body.Templates, Template{w.Key, w.Name, viewsOf(w.Items)})
	}
	return out, nil
}

// readyWeeks are made once: each of their steps is checked on every instrument.
var readyWeeks = sync.OnceValue(func() []plan.ReadyWeek {
	return plan.ReadyWeeks(exercise.StandardConventions().LongToneStep())
})

// templateInput is a week without its Monday.
type templateInput struct {
	Body struct {
		Name  string     `json:"name" minLength:"1" maxLength:"100"`
		Items []PlanItem `json:"items" nullable:"false"`
	}
}

// saveTemplate checks the items as a plan's are checked: a template that cannot be
// played would fail on the morning it is used.
func (a *API) saveTemplate(ctx context.Context, in *templateInput) (*templatesOutput, error) {
	items, err := itemsOf(in.Body.Items)
	if err != nil {
		return nil, err
	}
	err = a.Store.SaveTemplate(ctx, store.PlanTemplate{
		ID:         uuid.NewString(),
		DirectorID: a.who(ctx).Subject,
		Name:       in.Body.Name,
		Items:      items,
		MadeAt:     a.Now().UTC(),
	})
	if err != nil {
		return nil, err
	}
	return a.listTemplates(ctx, nil)
}

// templatePath is a template of the asker's own; a colleague's is not found.
type templatePath struct {
	Template string `path:"template" format:"uuid"`
}

// deleteTemplate leaves the weeks that were begun from it as they are.
func (a *API) deleteTemplate(ctx context.Context, in *templatePath) (*templatesOutput, error) {
	if err := a.Store.DeleteTemplate(ctx, in.Template, a.who(ctx).Subject); err != nil {
		return nil, err
	}
	return a.listTemplates(ctx, nil)
}
