package api

import (
	"encoding/json"
	"errors"
	"fmt"

	"earlychorus/core/exercise"
	"earlychorus/core/plan"
	"earlychorus/core/playtest"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// PlanItem is a step placed on days, as the page edits it.
type PlanItem struct {
	Key        string         `json:"key" format:"uuid" doc:"made by the client; the step's own number from then on"`
	Kind       string         `json:"kind" doc:"a key of the catalogue; it stays"`
	Parameters map[string]any `json:"parameters"`
	Times      int            `json:"times"`
	Days       []string       `json:"days" doc:"MO, TU, WE, TH, FR, SA, SU" nullable:"false"`
	At         plan.Place     `json:"at" enum:"class,home,both"`
	Wanted     int            `json:"wanted" doc:"1 if there is room, 2 usual, 3 rather than others"`
	Pinned     bool           `json:"pinned" doc:"neither cut nor dropped to fit"`
	For        []string       `json:"for" doc:"instrument keys; none is everyone it suits" nullable:"false"`
	Why        string         `json:"why" maxLength:"200"`
	Called     string         `json:"called,omitempty" maxLength:"60" doc:"the director's own name for it"`
	Test       *playtest.Test `json:"test,omitempty" doc:"of a step that is a test"`
}

// viewOf is an item as the page reads and writes it: days by their names, for which
// numbers would be somebody else's Sunday.
func viewOf(i plan.Item) PlanItem {
	return PlanItem{
		Key:        i.Key,
		Kind:       i.Step.Kind.Key,
		Parameters: i.Step.Values,
		Times:      i.Times,
		Days:       i.Days.Names(),
		At:         i.At,
		Wanted:     int(i.Wanted),
		Pinned:     i.Pinned,
		For:        append([]string{}, i.For...),
		Why:        i.Why,
		Called:     i.Called,
		Test:       i.Test,
	}
}

// viewsOf is never null in JSON: an empty plan is a list too.
func viewsOf(items []plan.Item) []PlanItem {
	out := []PlanItem{}
	for _, i := range items {
		out = append(out, viewOf(i))
	}
	return out
}

// item reads what the page sent. Errors: exercise.ParameterError and
// UnknownKindError.
func (v PlanItem) item() (plan.Item, error) {
	// Written out and read again, so that a plan's parameters pass the one check there is.
	raw, err := json.Marshal(v.Parameters)
	if err != nil {
		return plan.Item{}, err
	}
	step, err := exercise.Parse(v.Kind, raw)
	if err != nil {
		return plan.Item{}, err
	}
	days, err := json.Marshal(v.Days)
	if err != nil {
		return plan.Item{}, err
	}
	i := plan.Item{
		Key:    v.Key,
		Step:   step,
		Times:  v.Times,
		At:     v.At,
		Wanted: plan.Wanted(v.Wanted),
		Pinned: v.Pinned,
		For:    v.For,
		Why:    v.Why,
		Called: v.Called,
		Test:   v.Test,
	}
	return i, i.Days.UnmarshalJSON(days)
}

// itemsOf reads a list of items and checks them as a plan; an error's field names
// the item.
func itemsOf(views []PlanItem) ([]plan.Item, error) {
	out := make([]plan.Item, len(views))
	seen := map[string]bool{}
	for n, v := range views {
		i, err := v.item()
		var bad exercise.ParameterError
		if errors.As(err, &bad) {
			return nil, problem.Input(fmt.Sprintf("items[%d].parameters.%s", n, bad.Field), bad.Remedy)
		}
		if err != nil {
			return nil, err
		}
		// Two items of one number would be one step, and the second would overwrite the first.
		if seen[v.Key] || !store.IsID(v.Key) {
			return nil, problem.Input(fmt.Sprintf("items[%d].key", n), "give each step a number of its own")
		}
		seen[v.Key] = true
		out[n] = i
	}
	return out, plan.Plan{Items: out}.Check()
}
