package api

import (
	"context"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/server/store"
)

// LadderView is a ladder as its player sees it.
type LadderView struct {
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
}

// addStanding adds to a step where its player stands.
func (s *PracticeStep) addStanding(p store.Player, i instrument.Instrument, ladders map[string]ladder.State, day time.Time) {
	if s.Score.Kind == exercise.KindLongToneLongest {
		s.Best = p.Best
	}
	l, known := exercise.LadderOf(s.Score.Ladder)
	if !known {
		return
	}
	rules := ladder.Standard()
	rungs := l.Rungs(i)
	state, tried := ladders[l.Key]
	if !tried {
		state = ladder.Start(len(rungs))
		state.Rung = s.Score.Rung
	}
	v := &LadderView{
		Key: l.Key, Name: l.Name, Rung: state.Rung, Passed: state.Passed, Clean: state.Clean, Needs: rules.Needs(state), Reached: state.Reached,
		Capped: rules.Capped(state, day.Format(time.DateOnly)), Most: rules.DayTries, Rungs: []string{},
	}
	if state.Day == day.Format(time.DateOnly) {
		v.Tries = state.DayTries
	}
	for _, r := range rungs {
		v.Rungs = append(v.Rungs, r.Text)
	}
	s.Ladder = v
}

type ladderPath struct {
	Ladder string `path:"ladder"`
}

// stepBack leads a player back to the last clean rung, as asked.
func (a *API) stepBack(ctx context.Context, in *ladderPath) (*practiceOutput, error) {
	player, err := a.Store.Player(ctx, a.who(ctx).PlayerID)
	if err != nil {
		return nil, problem(err)
	}
	if _, known := exercise.LadderOf(in.Ladder); !known {
		return nil, problem(store.ErrNotFound)
	}
	err = a.Store.AddLadderEntry(ctx, store.LadderEntry{
		PlayerID: player.ID, Ladder: in.Ladder, What: ladder.SteppedBack, Day: player.Class.Day(a.Now()), At: a.Now().UTC(),
	})
	if err != nil {
		return nil, problem(err)
	}
	return a.showPractice(ctx, nil)
}
