package api

import (
	"context"
	"time"

	"earlychorus/core/plan"
	"earlychorus/server/store"
)

// SuggestionView is a step proposed for a week, with its reason.
type SuggestionView struct {
	Act     plan.Act  `json:"act" enum:"add-step,hear-them,check-micro"`
	Item    *PlanItem `json:"item,omitempty" doc:"to be added, where that is the act"`
	Name    string    `json:"name"`
	Reason  string    `json:"reason"`
	Section string    `json:"section" doc:"empty for the whole band"`
	Players int       `json:"players"`
	Takes   int       `json:"takes"`
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
	past, err := a.plansBefore(ctx, class.ID, monday)
	if err != nil {
		return nil, err
	}
	for _, s := range plan.Suggest(class.Remedies, observations(heard), stuckRungs(stuck), past...) {
		out.Body.Suggestions = append(out.Body.Suggestions, suggestionView(s))
	}
	return out, nil
}

// actNames head the suggestions that add no step.
var actNames = map[plan.Act]string{plan.HearThem: "Hear them in person", plan.CheckMicro: "Microphone check"}

func suggestionView(s plan.Suggestion) SuggestionView {
	out := SuggestionView{
		Act:     s.Act,
		Name:    actNames[s.Act],
		Reason:  s.Reason,
		Section: s.Section,
		Players: s.Players,
		Takes:   s.Takes,
	}
	if s.Act == plan.AddStep {
		// A key of its own, so that it can be taken into the plan as it is.
		s.Item.Key = store.NewID()
		item := viewOf(s.Item)
		out.Item, out.Name = &item, s.Item.Name()
	}
	return out
}

// plansBefore returns the plans of the two weeks before one, latest first: what was
// tried.
func (a *API) plansBefore(ctx context.Context, classID string, monday time.Time) (past [][]plan.Item, err error) {
	for week := 1; week <= 2; week++ {
		_, items, err := a.Store.PlanOf(ctx, classID, monday.AddDate(0, 0, -7*week))
		if err != nil {
			return nil, err
		}
		past = append(past, items)
	}
	return past, nil
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
