package api

import (
	"context"
	"fmt"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/known"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/server/problem"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// PlanView is a class's week.
type PlanView struct {
	Class        view.ClassName   `json:"class"`
	Monday       string           `json:"monday" format:"date"`
	Today        string           `json:"today" format:"date" doc:"the school's date now"`
	Name         string           `json:"name"`
	Revision     int              `json:"revision" doc:"0: nothing was planned yet"`
	Items        []PlanItem       `json:"items" nullable:"false"`
	History      []PlanChangeView `json:"history" doc:"who changed what, the latest first" nullable:"false"`
	ClassMinutes float64          `json:"class_minutes"`
	HomeMinutes  float64          `json:"home_minutes" doc:"0: the stage's usual"`
	Band         []BandMember     `json:"band" doc:"the instruments of the class" nullable:"false"`
	Merged       bool             `json:"merged,omitempty" doc:"somebody else's changes came in between, and are in it"`
	Feed         string           `json:"feed" doc:"path of the calendar feed"`
	Opens        []Opening        `json:"opens" nullable:"false" doc:"what a new step opens with in this class, by kind"`
	LongTone     string           `json:"long_tone" doc:"the kind of the class's own long tone"`
}

// Opening is what a new step of a kind asks for in a class, before anybody changes it.
type Opening struct {
	Kind       string         `json:"kind"`
	Parameters map[string]any `json:"parameters"`
}

func openings(c exercise.Conventions) []Opening {
	out := []Opening{}
	for _, k := range exercise.Catalogue() {
		out = append(out, Opening{k.Key, c.Opens(k)})
	}
	return out
}

// PlanChangeView is one change of a plan.
type PlanChangeView struct {
	Revision int    `json:"revision"`
	By       string `json:"by"`
	At       string `json:"at" format:"date-time"`
	Changes  string `json:"changes"`
}

// BandMember is an instrument of a class at a stage.
type BandMember struct {
	Instrument string       `json:"instrument"`
	Variant    string       `json:"variant"`
	Name       string       `json:"name"`
	Section    string       `json:"section"`
	Stage      scores.Stage `json:"stage"`
	Players    int          `json:"players"`
	Fingered   bool         `json:"fingered" doc:"its notes are in the book of fingerings"`
}

// WeekPath names a week of a class.
type WeekPath struct {
	Class  string `path:"class" format:"uuid"`
	Monday string `path:"monday" format:"date"`
}

// planOutput is a week as it stands, with the revision that a change of it has to be
// based on.
type planOutput struct{ Body PlanView }

// week reads a week's path and checks that the class is the asker's.
func (a *API) week(ctx context.Context, in WeekPath) (store.Class, time.Time, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return class, time.Time{}, err
	}
	monday, err := time.Parse(time.DateOnly, in.Monday)
	// A week has one name: by any of its days there would be seven plans of it.
	if err != nil || monday.Weekday() != time.Monday {
		return class, monday, problem.Input("monday", "name the week by its Monday, as 2026-11-23")
	}
	return class, monday, nil
}

// showPlan answers an empty week for one that nobody has planned: every Monday has a
// plan, and most are empty.
func (a *API) showPlan(ctx context.Context, in *WeekPath) (*planOutput, error) {
	class, monday, err := a.week(ctx, *in)
	if err != nil {
		return nil, err
	}
	p, items, err := a.Store.PlanOf(ctx, class.ID, monday)
	if err != nil {
		return nil, err
	}
	return a.planView(ctx, class, p, items)
}

// planView adds whom the class has, since the editor shows how each of them reads a
// step.
func (a *API) planView(ctx context.Context, class store.Class, p store.Plan, items []plan.Item) (*planOutput, error) {
	members, _, err := a.bandOf(ctx, class, a.planned(class, p.Monday))
	if err != nil {
		return nil, err
	}
	out := PlanView{
		Class:        view.ClassNameOf(class),
		Monday:       p.Monday.Format(time.DateOnly),
		Today:        class.Day(a.Now()).Format(time.DateOnly),
		Name:         p.Name,
		Revision:     p.Revision,
		Items:        viewsOf(items),
		History:      []PlanChangeView{},
		ClassMinutes: class.ClassMinutes,
		HomeMinutes:  class.HomeMinutes,
		Band:         members,
		Feed:         "/api/feeds/" + class.FeedToken + ".ics",
		Opens:        openings(class.Conventions()),
		LongTone:     class.Conventions().LongToneKind(),
	}
	// Nobody planned this week yet, so nobody changed it.
	if p.ID == "" {
		return &planOutput{out}, nil
	}
	history, err := a.Store.PlanHistory(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	for _, r := range history {
		out.History = append(
			out.History,
			PlanChangeView{r.Revision, r.Director.Name, r.ChangedAt.UTC().Format(time.RFC3339), r.Changes},
		)
	}
	return &planOutput{out}, nil
}

// planned is the day as of which a week is planned: its Monday, or today in the week that is on.
func (a *API) planned(class store.Class, monday time.Time) time.Time {
	if today := class.Day(a.Now()); store.Monday(today).Equal(monday) {
		return today
	}
	return monday
}

// weekAsked is the day as of which a week is looked at that is named by its Monday; this one
// where none is named.
func (a *API) weekAsked(class store.Class, monday string) time.Time {
	day, err := time.Parse(time.DateOnly, monday)
	if err != nil {
		return class.Day(a.Now())
	}
	return a.planned(class, day)
}

// bandOf returns the instruments of a class, and the band the planner works for.
func (a *API) bandOf(ctx context.Context, class store.Class, day time.Time) ([]BandMember, plan.Band, error) {
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, plan.Band{}, err
	}
	members := []BandMember{}
	band := plan.Band{Conventions: class.Conventions()}
	for _, i := range instrument.Band() {
		at := map[string]int{}
		for _, p := range players {
			if p.Instrument != i.Key {
				continue
			}
			p.Class = class
			built, err := p.Plays()
			if err != nil {
				return nil, band, err
			}
			// A plan is for everyone of an instrument and stage: nobody's own rung.
			who := exercise.Player{Instrument: built, Stage: p.StageOn(day)}
			who.Known, who.New = class.NotesOn(built, known.Own{}, day)
			// One of each instrument, build and stage: the planner works for forty players as fast as
			// for nine kinds.
			key := fmt.Sprint(p.Variant, who.Stage)
			if n, there := at[key]; there {
				members[n].Players++
				continue
			}
			at[key] = len(members)
			members = append(members, BandMember{i.Key, p.Variant, i.Name, i.Section, who.Stage, 1, i.IsPitched()})
			band.Players = append(band.Players, who)
		}
	}
	return members, band, nil
}

// changePlanInput is the whole week and the revision it was changed from. Where
// somebody saved in between, the two changes are merged by item; see core/plan.
type changePlanInput struct {
	WeekPath
	Body struct {
		Based int        `json:"based_on_revision" doc:"the revision the change was made from"`
		Name  string     `json:"name" maxLength:"100"`
		Items []PlanItem `json:"items" nullable:"false"`
	}
}

// changePlan keeps a change. What somebody else changed meanwhile is brought
// together with it; what cannot be is answered 409, with who changed what.
func (a *API) changePlan(ctx context.Context, in *changePlanInput) (*planOutput, error) {
	class, monday, err := a.week(ctx, in.WeekPath)
	if err != nil {
		return nil, err
	}
	items, err := itemsOf(in.Body.Items)
	if err != nil {
		return nil, err
	}
	for n, i := range items {
		if i.Test != nil && !dueInReach(i.Test.Due, monday) {
			return nil, problem.Input(
				fmt.Sprintf("items[%d].test.due", n),
				"choose a day from this week on, within two months",
			)
		}
	}
	saved, err := a.Store.ChangePlan(ctx, store.PlanChange{
		ClassID:    class.ID,
		DirectorID: a.who(ctx).Subject,
		Monday:     monday,
		Name:       in.Body.Name,
		Based:      in.Body.Based,
		Items:      items,
		At:         a.Now().UTC(),
	})
	if err != nil {
		return nil, err
	}
	if len(saved.Conflicts) > 0 {
		return nil, a.contradiction(ctx, saved, in.Body.Based)
	}
	out, err := a.planView(ctx, class, saved.Plan, saved.Items)
	if err == nil {
		out.Body.Merged = saved.Merged
	}
	return out, err
}

// contradiction tells who changed the same steps since a revision, and what they
// did.
func (a *API) contradiction(ctx context.Context, saved store.SavedPlan, based int) error {
	history, err := a.Store.PlanHistory(ctx, saved.Plan.ID)
	if err != nil {
		return err
	}
	// Nobody else did, then it was the asker: two windows, or a page that was left open.
	others := "You changed the same steps in another window."
	for _, r := range history {
		if r.Revision > based && r.DirectorID != a.who(ctx).Subject {
			others = fmt.Sprintf("%s changed the same steps meanwhile: %s", r.Director.Name, r.Changes)
			break
		}
	}
	var details []problem.Detail
	for _, c := range saved.Conflicts {
		name := "A step"
		for _, i := range []*plan.Item{c.Base, c.Theirs, c.Mine} {
			if i != nil {
				name = i.Name()
				break
			}
		}
		// Words for each step, so that the page can ask about one at a time.
		says := name + " was changed by both of you."
		if c.Theirs == nil {
			says = name + " was taken away meanwhile."
		}
		details = append(details, problem.Detail{Field: "items." + c.Key, Remedy: says})
	}
	return problem.Error{Kind: problem.Conflict, Remedy: others, Details: details}
}

// testDays are the most from the Monday of a test's week to the day it is due.
const testDays = 60

// dueInReach reports whether a test of a week may be due on a day.
func dueInReach(due string, monday time.Time) bool {
	day, err := time.Parse(time.DateOnly, due)
	return err == nil && !day.Before(monday) && !day.After(monday.AddDate(0, 0, testDays))
}
