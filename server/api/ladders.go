package api

import (
	"context"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/server/store"
)

// backInput asks for the rung below. It is dated by how long ago it was asked for,
// so that it falls into its place among takes that were played before and after.
type backInput struct {
	Ladder string `path:"ladder"`
	Act    string `path:"act" format:"uuid" doc:"made by the device: asking again is harmless"`
	Body   struct {
		AgoMS int `json:"ago_ms,omitempty" minimum:"0" doc:"how long ago it was asked for, on a device without a network"`
	}
}

// stepBack leads a player back to the last clean rung, as asked.
func (a *API) stepBack(ctx context.Context, in *backInput) (*practiceOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	if _, known := exercise.LadderOf(in.Ladder); !known {
		return nil, store.ErrNotFound
	}
	at := ago(a.Now(), in.Body.AgoMS)
	err = a.Store.AddLadderEntry(ctx, store.LadderEntry{
		PlayerID: player.ID,
		Ladder:   in.Ladder,
		What:     ladder.SteppedBack,
		Day:      player.Class.Day(at),
		At:       at.UTC(),
		ActID:    &in.Act,
	})
	if err != nil {
		return nil, err
	}
	return a.showPractice(ctx, nil)
}

// ago is the instant so many milliseconds before now: how devices say when
// something happened, whatever their clocks show.
func ago(now time.Time, ms int) time.Time { return now.Add(-time.Duration(ms) * time.Millisecond) }
