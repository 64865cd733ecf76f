package api

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/plan"
	"earlychorus/core/verdict"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// settingsInput is all of the settings at once: a form that saves half of them would
// leave a class judged by two schools.
type settingsInput struct {
	ClassPath
	Body struct {
		Name         string               `json:"name" minLength:"1" maxLength:"80"`
		FirstLesson  string               `json:"first_lesson" doc:"date; empty when it is not known"`
		ClassMinutes float64              `json:"class_minutes" minimum:"1" maximum:"60"`
		HomeMinutes  float64              `json:"home_minutes" minimum:"0" maximum:"60"`
		Simulated    store.Simulating     `json:"simulated_players,omitempty" enum:"no,tried" doc:"left out: as it was"`
		KeepDays     int                  `json:"keep_days,omitempty" minimum:"7" maximum:"3650" doc:"left out: as it was"`
		KeepVoice    *int                 `json:"keep_voice_days,omitempty" minimum:"0" maximum:"3650" doc:"0: as long as recordings; left out: as it was"`
		KeepMeasures *int                 `json:"keep_measures_days,omitempty" minimum:"0" maximum:"3650" doc:"0: as long as the class; left out: as it was"`
		Conventions  exercise.Conventions `json:"conventions"`
		Tips         verdict.Book         `json:"tips"`
		Remedies     *plan.RemedyBook     `json:"remedies,omitempty" doc:"left out: as they were"`
	}
}

// saveSettings changes how takes are judged from now on. Takes already heard keep
// their word; they were played under the old rules.
func (a *API) saveSettings(ctx context.Context, in *settingsInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if err := in.Body.Conventions.Check(); err != nil {
		return nil, err
	}
	if unknown := in.Body.Tips.Unknown(); len(unknown) > 0 {
		return nil, problem.Input("tips", fmt.Sprintf("there is no tip %q", unknown[0]))
	}
	for key, words := range in.Body.Tips {
		if len(words) > 300 {
			return nil, problem.Input("tips."+key, "use at most 300 letters")
		}
	}
	if in.Body.Remedies != nil {
		if key, remedy := in.Body.Remedies.Check(); key != "" {
			return nil, problem.Input("remedies."+key, remedy)
		}
		class.Remedies = *in.Body.Remedies
	}
	// Emptied is an answer: stages then are only what the director sets.
	class.FirstLesson = nil
	if in.Body.FirstLesson != "" {
		day, err := time.Parse(time.DateOnly, in.Body.FirstLesson)
		if err != nil {
			return nil, problem.Input("first_lesson", "write the day as 2026-09-02")
		}
		class.FirstLesson = &day
	}
	if class.OwnConventions, err = json.Marshal(in.Body.Conventions); err != nil {
		return nil, err
	}
	class.Name, class.Tips = in.Body.Name, in.Body.Tips
	class.ClassMinutes, class.HomeMinutes = in.Body.ClassMinutes, in.Body.HomeMinutes
	// Left out means as it was: the tips' form saves the same settings without asking for it.
	if in.Body.KeepDays > 0 {
		class.KeepDays = in.Body.KeepDays
	}
	if in.Body.KeepVoice != nil {
		class.KeepVoiceDays = *in.Body.KeepVoice
	}
	if in.Body.KeepMeasures != nil {
		class.KeepMeasuresDays = *in.Body.KeepMeasures
	}
	if m := class.KeepMeasuresDays; m > 0 && m < class.KeepDays {
		return nil, problem.Input("keep_measures_days", "keep measures at least as long as recordings, or 0 for always")
	}
	if in.Body.Simulated != "" && class.SimulatedPlayers != store.SimulatingDemo {
		class.SimulatedPlayers = in.Body.Simulated
	}
	if err := a.Store.SaveSettings(ctx, class); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}
