package api

import (
	"context"
	"slices"

	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
)

// DayWork is what a day of a plan asks of a class.
type DayWork struct {
	Items    []ItemWork    `json:"items" nullable:"false"`
	Sections []SectionWork `json:"sections" nullable:"false"`
	Total    music.Seconds `json:"total_s" doc:"of whoever takes longest"`
	Budget   music.Seconds `json:"budget_s" doc:"the least of the band's budgets"`
	Over     []string      `json:"over" nullable:"false" doc:"every budget the day goes beyond, in words"`
	Order    []string      `json:"order" nullable:"false" doc:"keys in the order of the class's school"`
	Reason   string        `json:"reason" doc:"why that order"`
}

// ItemWork is one item of it.
type ItemWork struct {
	Key      string        `json:"key"`
	Name     string        `json:"name" doc:"the kind's"`
	Group    string        `json:"group"`
	Sentence string        `json:"sentence"`
	Seconds  music.Seconds `json:"seconds" doc:"of whoever takes longest, reading and changing included"`
	Cautions []string      `json:"cautions" nullable:"false"`
	LeftOut  []string      `json:"left_out" doc:"sections that it is not for" nullable:"false"`
}

// SectionWork is a section's load.
type SectionWork struct {
	Section string       `json:"section"`
	Stage   scores.Stage `json:"stage"`
	Load    plan.Effort  `json:"load"`
	Over    []plan.Over  `json:"over" nullable:"false"`
}

// DayAsked is a day of items, where and in how many minutes.
type DayAsked struct {
	Items   []PlanItem `json:"items" nullable:"false" doc:"the day's, in order"`
	At      plan.Place `json:"at" enum:"class,home"`
	Minutes float64    `json:"minutes" doc:"0: the class's own" minimum:"0" maximum:"60"`
	Monday  string     `json:"monday,omitempty" format:"date" doc:"of its week; left out: this one"`
}

// dayInput is a day as it stands in the page, saved or not: everything here is
// worked out of what is asked, and nothing is kept.
type dayInput struct {
	Class string `path:"class" format:"uuid"`
	Body  DayAsked
}

// dayOutput is the day's time, its load on each section and its order.
type dayOutput struct{ Body DayWork }

// asked reads a day and the band it is for.
func (a *API) asked(
	ctx context.Context,
	in *dayInput,
) (items []plan.Item, members []BandMember, band plan.Band, minutes float64, err error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, nil, band, 0, err
	}
	if items, err = itemsOf(in.Body.Items); err != nil {
		return nil, nil, band, 0, err
	}
	minutes = in.Body.Minutes
	// Nought at home goes on to the stage's usual minutes, which the core knows.
	if minutes == 0 {
		minutes = map[plan.Place]float64{plan.InClass: class.ClassMinutes, plan.AtHome: class.HomeMinutes}[in.Body.At]
	}
	members, band, err = a.bandOf(ctx, class, a.weekAsked(class, in.Body.Monday))
	return items, members, band, minutes, err
}

// workDay adds a day up for the whole class.
func (a *API) workDay(ctx context.Context, in *dayInput) (*dayOutput, error) {
	items, members, band, minutes, err := a.asked(ctx, in)
	if err != nil {
		return nil, err
	}
	sections, err := plan.DayLoad(items, band, in.Body.At, minutes)
	if err != nil {
		return nil, err
	}
	out := DayWork{
		Items:    []ItemWork{},
		Sections: []SectionWork{},
		Over:     []string{},
		Order:    []string{},
	}
	for n, s := range sections {
		out.Sections = append(out.Sections, SectionWork{members[n].Section, s.Stage, s.Load, s.Over})
		// A class ends when its slowest section ends, and has to fit the tightest budget of any.
		out.Total = max(out.Total, s.Load.Total)
		b := plan.ForClass(s.Stage, minutes)
		if in.Body.At == plan.AtHome {
			b = plan.ForHome(s.Stage, minutes)
		}
		if out.Budget == 0 || b.Total < out.Budget {
			out.Budget = b.Total
		}
		for _, o := range s.Over {
			// Time is shown as time; this list is for what lips and breath cannot do.
			if o.Budget != "total" && !slices.Contains(out.Over, o.Text) {
				out.Over = append(out.Over, o.Text)
			}
		}
	}
	if out.Items, err = itemWorks(items, members, band, in.Body.At); err != nil {
		return nil, err
	}
	ordered := plan.Order(items, band)
	out.Reason = ordered.Reason
	for _, i := range ordered.Items {
		out.Order = append(out.Order, i.Key)
	}
	return &dayOutput{out}, nil
}

// itemWorks says of each step how long it takes whoever takes longest, and whom it
// is not for.
func itemWorks(items []plan.Item, members []BandMember, band plan.Band, at plan.Place) ([]ItemWork, error) {
	out := []ItemWork{}
	for _, i := range items {
		w := ItemWork{
			Key:      i.Key,
			Name:     i.Name(),
			Group:    string(i.Step.Kind.Group),
			Sentence: i.Step.Sentence(),
			Cautions: []string{},
			LeftOut:  []string{},
		}
		for n, who := range band.Players {
			if !i.AsksOf(who) {
				if !slices.Contains(w.LeftOut, members[n].Section) {
					w.LeftOut = append(w.LeftOut, members[n].Section)
				}
				continue
			}
			s, err := i.Step.Score(who, band.Conventions)
			if err != nil {
				return nil, err
			}
			w.Seconds = max(w.Seconds, i.Seconds(s, at))
			for _, c := range s.Cautions {
				// The same caution for nine instruments is said once.
				if !slices.Contains(w.Cautions, c) {
					w.Cautions = append(w.Cautions, c)
				}
			}
		}
		out = append(out, w)
	}
	return out, nil
}

// FittedDay is a day that fits.
type FittedDay struct {
	Items  []PlanItem    `json:"items" nullable:"false"`
	Cuts   []plan.Cut    `json:"cuts" nullable:"false"`
	Beyond []string      `json:"beyond" nullable:"false" doc:"what even the pinned items alone go beyond"`
	Total  music.Seconds `json:"total_s"`
}

// fitOutput is a proposal; the page takes it or leaves it.
type fitOutput struct{ Body FittedDay }

// fitDay brings a day inside its minutes. The search is exact; core/plan says how,
// and its bench what it costs.
func (a *API) fitDay(ctx context.Context, in *dayInput) (*fitOutput, error) {
	items, _, band, minutes, err := a.asked(ctx, in)
	if err != nil {
		return nil, err
	}
	fitted, err := plan.Fit(items, band, in.Body.At, minutes)
	if err != nil {
		return nil, err
	}
	out := FittedDay{
		Items:  viewsOf(fitted.Items),
		Cuts:   fitted.Cuts,
		Beyond: []string{},
		Total:  fitted.Total,
	}
	for _, o := range fitted.Beyond {
		out.Beyond = append(out.Beyond, o.Text)
	}
	return &fitOutput{out}, nil
}
