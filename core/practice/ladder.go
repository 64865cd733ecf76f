package practice

import (
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
)

// Ladder is a ladder as its player sees it.
type Ladder struct {
	Key     string   `json:"key"`
	Name    string   `json:"name"`
	Rungs   []string `json:"rungs" nullable:"false" doc:"what each asks, from the first"`
	Rung    int      `json:"rung" doc:"the player's, from 1"`
	Passed  []bool   `json:"passed" nullable:"false"`
	Clean   int      `json:"clean" doc:"clean in a row on the rung"`
	Needs   int      `json:"needs" doc:"clean in a row that it still asks for"`
	Reached bool     `json:"reached" doc:"the goal was reached"`
	Capped  bool     `json:"capped" doc:"the day's tries are used up: more is practice, and does not count"`
	Tries   int      `json:"tries_today"`
	Most    int      `json:"most_tries" doc:"a day that count"`

	State ladder.State `json:"state" doc:"what the next take leads on from"`
}

// LadderOf shows a ladder on a school's day; known is false for a key that is
// none. A ladder that was never tried has no state: it begins at the rung given.
func LadderOf(
	key string,
	i instrument.Instrument,
	state *ladder.State,
	rung int,
	day string,
) (view Ladder, known bool) {
	l, known := exercise.LadderOf(key)
	if !known {
		return Ladder{}, false
	}
	rungs := l.Rungs(i)
	now := ladder.Start(len(rungs))
	now.Rung = min(max(1, rung), len(rungs))
	if state != nil {
		now = *state
	}
	rules := ladder.Standard()
	view = Ladder{
		Key:     l.Key,
		Name:    l.Name,
		Rungs:   []string{},
		Rung:    now.Rung,
		Passed:  now.Passed,
		Clean:   now.Clean,
		Needs:   rules.Needs(now),
		Reached: now.Reached,
		Capped:  rules.Capped(now, day),
		Most:    rules.DayTries,
		State:   now,
	}
	if now.Day == day {
		view.Tries = now.DayTries
	}
	for _, r := range rungs {
		view.Rungs = append(view.Rungs, r.Text)
	}
	return view, true
}

// StepBack returns the ladder after its player chose to go back a rung on a
// school's day.
func StepBack(view Ladder, i instrument.Instrument, day string) Ladder {
	next, _ := Climb(view, i, ladder.Entry{What: ladder.SteppedBack, Day: day})
	return next
}

// Climb returns the ladder after something happened on it, and what that did.
func Climb(view Ladder, i instrument.Instrument, e ladder.Entry) (Ladder, ladder.Move) {
	state, move := ladder.Standard().Next(view.State, e)
	next, known := LadderOf(view.Key, i, &state, view.Rung, e.Day)
	if !known {
		return view, ladder.Stayed
	}
	return next, move
}
