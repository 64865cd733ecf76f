package api

import (
	"context"
	"slices"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/server/caring"
	"earlychorus/server/store"
)

// careInput says that the instrument was looked after.
type careInput struct {
	Every exercise.Every `path:"every" enum:"daily,weekly,monthly,termly"`
	Body  struct {
		AgoMS int `json:"ago_ms,omitempty" minimum:"0" doc:"how long ago, on a device without a network"`
	}
}

// careDone keeps that a player looked after the instrument, and answers with the whole
// practice.
func (a *API) careDone(ctx context.Context, in *careInput) (*practiceOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	at := ago(a.Now(), in.Body.AgoMS)
	err = a.Store.SaveCare(ctx, store.CareDone{PlayerID: player.ID, Every: in.Every, Day: player.Class.Day(at)})
	if err != nil {
		return nil, err
	}
	return a.showPractice(ctx, nil)
}

// ClassCare is whose instruments need looking after.
type ClassCare struct {
	Players []PlayerCare `json:"players" nullable:"false" doc:"those with something due, in the roster's order"`
	Count   int          `json:"count" doc:"players in the class"`
}

// PlayerCare is what one player's instrument needs now.
type PlayerCare struct {
	PlayerID   string       `json:"player_id"`
	Player     string       `json:"player"`
	Instrument string       `json:"instrument"`
	Due        []caring.Due `json:"due" nullable:"false"`
}

type careOutput struct{ Body ClassCare }

// showCare lists whose instruments need looking after, as of today.
func (a *API) showCare(ctx context.Context, in *ClassPath) (*careOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	ids := make([]string, len(players))
	for n, p := range players {
		ids[n] = p.ID
	}
	latest, err := a.Store.LatestCare(ctx, ids)
	if err != nil {
		return nil, err
	}
	out := &careOutput{ClassCare{Players: []PlayerCare{}, Count: len(players)}}
	day := class.Day(a.Now())
	for _, p := range players {
		p.Class = class
		all, err := caring.Of(p, latest[p.ID], day)
		if err != nil {
			return nil, err
		}
		one := PlayerCare{PlayerID: p.ID, Player: p.ShortName(), Due: []caring.Due{}}
		for _, d := range all {
			if d.Now {
				one.Due = append(one.Due, d)
			}
		}
		if len(one.Due) == 0 {
			continue
		}
		i, err := p.Plays()
		if err != nil {
			return nil, err
		}
		one.Instrument = i.Name
		out.Body.Players = append(out.Body.Players, one)
	}
	return out, nil
}

// careTicked keeps that a care step was done when all of it is ticked.
func (a *API) careTicked(ctx context.Context, p store.Player, step store.Step, done []bool, at time.Time) error {
	x, err := step.Exercise()
	if err != nil {
		return err
	}
	every, ok := x.CareEvery()
	if !ok || slices.Contains(done, false) {
		return nil
	}
	return a.Store.SaveCare(ctx, store.CareDone{PlayerID: p.ID, Every: every, Day: p.Class.Day(at)})
}
