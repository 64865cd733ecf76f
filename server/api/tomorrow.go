package api

import (
	"context"
	"time"

	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/server/store"
)

// Tomorrow is what the next school day's minutes in class could be: what is
// planned, and what the last fortnight asks for, fitted together.
type Tomorrow struct {
	Day     string         `json:"day" format:"date"`
	Minutes float64        `json:"minutes"`
	Total   music.Seconds  `json:"total_s"`
	Steps   []TomorrowStep `json:"steps" nullable:"false"`
	LeftOut []string       `json:"left_out" nullable:"false" doc:"planned for the day, and left out to make room"`
	Unfit   []UnfitStep    `json:"unfit" nullable:"false" doc:"what would help and does not fit"`
}

// UnfitStep is a step that would help, and does not fit into the day.
type UnfitStep struct {
	Name   string `json:"name"`
	Reason string `json:"reason" doc:"why it would help"`
	Why    string `json:"why" doc:"why it does not fit"`
}

// TomorrowStep is a step of tomorrow, and why.
type TomorrowStep struct {
	Name     string `json:"name"`
	Sentence string `json:"sentence"`
	Reason   string `json:"reason"`
	New      bool   `json:"new" doc:"proposed, not planned yet"`
}

// tomorrowOutput is a proposal with its reasons; a second route puts it into the
// plan.
type tomorrowOutput struct{ Body Tomorrow }

// showTomorrow proposes and keeps nothing. It is asked for as often as the board is
// opened.
func (a *API) showTomorrow(ctx context.Context, in *ClassPath) (*tomorrowOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	p, err := a.proposal(ctx, class)
	if err != nil {
		return nil, err
	}
	return &tomorrowOutput{p.view()}, nil
}

// planTomorrow puts the proposal into the plan.
func (a *API) planTomorrow(ctx context.Context, in *ClassPath) (*tomorrowOutput, error) {
	director := a.who(ctx).Subject
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	p, err := a.proposal(ctx, class)
	if err != nil {
		return nil, err
	}
	monday := store.Monday(p.day)
	saved, err := a.Store.ChangePlan(ctx, store.PlanChange{
		ClassID:    class.ID,
		DirectorID: director,
		Monday:     monday,
		Name:       titleOf(class, p.planned),
		// Based on what was looked at: whoever planned meanwhile is merged with, not overwritten.
		Based: p.planned.Revision,
		Items: p.week(),
		At:    a.Now().UTC(),
	})
	if err != nil {
		return nil, err
	}
	// Two directors at one item: the page shows both and asks.
	if len(saved.Conflicts) > 0 {
		return nil, a.contradiction(ctx, saved, p.planned.Revision)
	}
	return a.showTomorrow(ctx, in)
}

// proposed is tomorrow being thought out.
type proposed struct {
	day     time.Time
	minutes float64
	planned store.Plan
	items   []plan.Item       // of the whole week, as planned
	reasons map[string]string // of what is new, by key
	names   map[string]string // likewise
	fitted  plan.Fitted
}

// mostProposed bounds what is new on one day, so that a proposal is read and not
// scrolled.
const mostProposed = 4

// proposal begins with what is planned already, adds what the last days speak for,
// and fits all of it into the minutes.
func (a *API) proposal(ctx context.Context, class store.Class) (p proposed, err error) {
	today := class.Day(a.Now())
	p.day, p.minutes, p.reasons = nextSchoolDay(today), class.ClassMinutes, map[string]string{}
	p.names = map[string]string{}
	if p.planned, p.items, err = a.Store.PlanOf(ctx, class.ID, store.Monday(p.day)); err != nil {
		return p, err
	}
	heard, err := a.Store.HeardBetween(ctx, class.ID, today.AddDate(0, 0, -fortnight), today)
	if err != nil {
		return p, err
	}
	stuck, err := a.Store.StuckPlayers(ctx, class)
	if err != nil {
		return p, err
	}
	// Only the day's own steps take up its minutes.
	day := plan.Plan{Items: p.items}.OfDay(p.weekday(), plan.InClass)
	there := map[string]bool{}
	for _, i := range day {
		there[i.Step.Kind.Key] = true
	}
	past, err := a.plansBefore(ctx, class.ID, store.Monday(p.day))
	if err != nil {
		return p, err
	}
	for _, s := range plan.Suggest(class.Remedies, observations(heard), stuckRungs(stuck), past...) {
		if s.Act != plan.AddStep || len(p.reasons) == mostProposed || there[s.Item.Step.Kind.Key] {
			continue // what is planned already needs no proposal
		}
		i := s.Item
		// One day and in class alone: a proposal for tomorrow promises nothing about next week.
		i.Key, i.Days, i.At = store.NewID(), plan.Days(1<<p.weekday()), plan.InClass
		p.reasons[i.Key], p.names[i.Key] = s.Reason, i.Name()
		there[i.Step.Kind.Key] = true
		day = append(day, i)
	}
	_, band, err := a.bandOf(ctx, class, p.day)
	if err != nil {
		return p, err
	}
	p.fitted, err = plan.Fit(day, band, plan.InClass, p.minutes)
	return p, err
}

// nextSchoolDay leaves out weekends; holidays it does not know.
func nextSchoolDay(day time.Time) time.Time {
	day = day.AddDate(0, 0, 1)
	for day.Weekday() == time.Saturday || day.Weekday() == time.Sunday {
		day = day.AddDate(0, 0, 1)
	}
	return day
}

// weekday counts from Monday, as plans do; Go counts from Sunday.
func (p proposed) weekday() plan.Day { return plan.Day((int(p.day.Weekday()) + 6) % 7) }

// view says of each step whether it is new, and of what was cut, why.
func (p proposed) view() Tomorrow {
	out := Tomorrow{
		Day:     p.day.Format(time.DateOnly),
		Minutes: p.minutes,
		Total:   p.fitted.Total,
		Steps:   []TomorrowStep{},
		LeftOut: []string{},
		Unfit:   []UnfitStep{},
	}
	for _, i := range p.fitted.Items {
		reason, fresh := p.reasons[i.Key]
		if !fresh {
			reason = i.Why
		}
		out.Steps = append(out.Steps, TomorrowStep{i.Name(), i.Step.Sentence(), reason, fresh})
	}
	for _, c := range p.fitted.Cuts {
		// What was planned and cut is told as left out, below; this is what never came in.
		if reason, fresh := p.reasons[c.Key]; fresh && c.Dropped {
			out.Unfit = append(out.Unfit, UnfitStep{p.names[c.Key], reason, c.Why})
		}
	}
	for _, i := range p.items {
		if p.leavesOut(i) {
			out.LeftOut = append(out.LeftOut, i.Name())
		}
	}
	return out
}

// leavesOut reports whether a planned item of the day did not fit.
func (p proposed) leavesOut(i plan.Item) bool {
	for _, c := range p.fitted.Cuts {
		if c.Key == i.Key && c.Dropped {
			return true
		}
	}
	return false
}

// week is the week's plan with the proposal in it: what is new stands on its day,
// what was left out is taken off that day.
func (p proposed) week() []plan.Item {
	out := []plan.Item{}
	for _, i := range p.items {
		if p.leavesOut(i) {
			// Only this day of it: on its other days it stays.
			i.Days &^= plan.Days(1 << p.weekday())
		}
		if i.Days != 0 {
			out = append(out, i)
		}
	}
	for _, i := range p.fitted.Items {
		if _, fresh := p.reasons[i.Key]; fresh {
			out = append(out, i)
		}
	}
	return out
}
