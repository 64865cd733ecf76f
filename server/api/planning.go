package api

import (
	"context"
	"encoding/json"
	"net/http"
	"slices"
	"strconv"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/notation"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/server/problem"
	"earlychorus/server/store"
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
	members, band, err = a.bandOf(ctx, class)
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
			Name:     i.Step.Kind.Name,
			Group:    string(i.Step.Kind.Group),
			Sentence: i.Step.Sentence(),
			Cautions: []string{},
			LeftOut:  []string{},
		}
		for n, who := range band.Players {
			if !i.IsFor(who.Instrument) {
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

// SuggestionView is a step proposed for a week, with its reason.
type SuggestionView struct {
	Item    PlanItem `json:"item"`
	Name    string   `json:"name"`
	Reason  string   `json:"reason"`
	Section string   `json:"section" doc:"empty for the whole band"`
	Players int      `json:"players"`
	Takes   int      `json:"takes"`
}

// suggestionsOutput is what last fortnight's takes speak for. Heard says how many
// that were: three takes are no reason.
type suggestionsOutput struct {
	Body struct {
		Suggestions []SuggestionView `json:"suggestions" nullable:"false"`
		Heard       int              `json:"heard" doc:"takes of the fortnight before"`
	}
}

// fortnight is how far back suggestions look.
const fortnight = 14

// suggestSteps looks at the days before the week that is being planned, so that
// planning next month does not look at an empty week.
func (a *API) suggestSteps(ctx context.Context, in *WeekPath) (*suggestionsOutput, error) {
	class, monday, err := a.week(ctx, *in)
	if err != nil {
		return nil, err
	}
	// The days before the week, and what of it is over already.
	heard, err := a.Store.HeardBetween(ctx, class.ID, monday.AddDate(0, 0, -fortnight), monday.AddDate(0, 0, 6))
	if err != nil {
		return nil, err
	}
	out := &suggestionsOutput{}
	out.Body.Suggestions, out.Body.Heard = []SuggestionView{}, len(heard)
	stuck, err := a.Store.StuckPlayers(ctx, class)
	if err != nil {
		return nil, err
	}
	for _, s := range plan.Suggest(observations(heard), stuckRungs(stuck)) {
		// A key of its own, so that it can be taken into the plan as it is.
		s.Item.Key = store.NewID()
		out.Body.Suggestions = append(
			out.Body.Suggestions,
			SuggestionView{viewOf(s.Item), s.Item.Step.Kind.Name, s.Reason, s.Section, s.Players, s.Takes},
		)
	}
	return out, nil
}

// stuckRungs puts the store's rows into the core's words: the core knows no
// database.
func stuckRungs(stuck []store.StuckPlayer) []plan.StuckRung {
	out := make([]plan.StuckRung, len(stuck))
	for n, s := range stuck {
		out[n] = plan.StuckRung{
			Player:     s.PlayerID,
			Instrument: s.Instrument,
			Ladder:     s.Ladder,
			Rung:       s.Rung,
			Tries:      s.Tries,
		}
	}
	return out
}

// observations puts takes that were heard into the core's words.
func observations(heard []store.Heard) []plan.Observation {
	out := make([]plan.Observation, len(heard))
	for n, h := range heard {
		out[n] = plan.Observation{
			Player:     h.PlayerID,
			Instrument: h.Instrument,
			Result:     h.Result,
			Cause:      h.Cause,
		}
	}
	return out
}

// NotationAsked is a step to be shown for one instrument.
type NotationAsked struct {
	Kind       string         `json:"kind"`
	Parameters map[string]any `json:"parameters"`
	Instrument string         `json:"instrument"`
	Variant    string         `json:"variant"`
	Stage      scores.Stage   `json:"stage" minimum:"1" maximum:"4"`
}

// player is whom a step is drawn for. It is no player of the class: an instrument, a
// build and a stage.
func (n NotationAsked) player() (exercise.Player, error) {
	i, err := instrument.Get(n.Instrument)
	if err != nil {
		return exercise.Player{}, problem.Input("instrument", "choose an instrument of the table")
	}
	if i, err = i.As(n.Variant); err != nil {
		return exercise.Player{}, problem.Input("variant", err.Error())
	}
	return exercise.Player{Instrument: i, Stage: n.Stage}, nil
}

// StepNotation is a step as one instrument reads it, ready to be drawn.
type StepNotation struct {
	Sentence string          `json:"sentence"`
	Score    scores.Score    `json:"score"`
	Bars     []notation.Bar  `json:"bars" nullable:"false"`
	Timeline scores.Timeline `json:"timeline"`
	Suits    bool            `json:"suits" doc:"false: the step is not for this instrument, and there is nothing to draw"`
}

// notationInput asks how one kind of player reads one step.
type notationInput struct {
	Class string `path:"class" format:"uuid"`
	Body  NotationAsked
}

// notationOutput is the score, its bars and its fingerings: everything the page
// engraves.
type notationOutput struct{ Body StepNotation }

// drawStep reads a step as a player of it would. That a step does not suit an
// instrument is an answer here and no error.
func (a *API) drawStep(ctx context.Context, in *notationInput) (*notationOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	who, err := in.Body.player()
	if err != nil {
		return nil, err
	}
	// Through the same door as a plan's items: what is drawn is what would be saved.
	raw, err := json.Marshal(in.Body.Parameters)
	if err != nil {
		return nil, err
	}
	step, err := exercise.Parse(in.Body.Kind, raw)
	if err != nil {
		return nil, err
	}
	out := StepNotation{Sentence: step.Sentence(), Bars: []notation.Bar{}, Suits: step.Suits(who.Instrument)}
	if !out.Suits {
		return &notationOutput{out}, nil
	}
	if out.Score, err = step.Score(who, class.Conventions()); err != nil {
		return nil, err
	}
	out.Bars, out.Timeline = notation.Bars(out.Score), out.Score.Timeline()
	return &notationOutput{out}, nil
}

// soundRate is enough for a reference tone.
const soundRate = 24000

// soundStep answers how a step sounds on an instrument.
func (a *API) soundStep(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	q := r.URL.Query()
	stage, _ := strconv.Atoi(q.Get("stage")) // 0 is taken as the first
	who, err := NotationAsked{
		Instrument: q.Get("instrument"),
		Variant:    q.Get("variant"),
		Stage:      max(1, scores.Stage(stage)),
	}.player()
	if err != nil {
		return err
	}
	step, err := exercise.Parse(q.Get("kind"), []byte(q.Get("parameters")))
	if err != nil {
		return err
	}
	score, err := step.Score(who, class.Conventions())
	if err != nil {
		return err
	}
	serveWAV(w, r, synth.Reference(score, who.Instrument, soundRate), time.Time{})
	return nil
}
