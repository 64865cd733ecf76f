package workers

import (
	"context"
	"errors"
	"time"

	"github.com/riverqueue/river"

	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// Pack makes recordings smaller that were kept as they came: packing costs more than
// hearing, and nobody waits for it. The queue asks for it every quarter of an hour, once
// per cluster.
type Pack struct {
	river.WorkerDefaults[jobs.Pack]

	Store      *store.Store
	Recordings *recordings.Store
	Now        func() time.Time
}

const (
	packEvery = 15 * time.Minute
	// packAfter is how long a recording is left as it came: while a lesson begins there is
	// other work.
	packAfter  = 20 * time.Minute
	packTime   = 10 * time.Minute
	packAtOnce = 50
)

// Timeout gives it longer than a take, and ends it before it is asked for again.
func (w *Pack) Timeout(*river.Job[jobs.Pack]) time.Duration { return packTime }

// Work packs. Running twice, or being stopped, is harmless.
func (w *Pack) Work(ctx context.Context, _ *river.Job[jobs.Pack]) error {
	before := w.Now().Add(-packAfter)
	for after := (store.Unpacked{}); ; {
		waiting, err := w.Store.Unpacked(ctx, before, after, packAtOnce)
		if err != nil || len(waiting) == 0 {
			return err
		}
		for _, t := range waiting {
			if err := w.pack(ctx, t); err != nil {
				return err
			}
			after = t
		}
	}
}

// lookAgain is how often it is asked whether takes still wait to be listened to.
const lookAgain = time.Second

// giveWay waits until no take waits to be listened to: whoever played one does.
func (w *Pack) giveWay(ctx context.Context) error {
	for pause := breather; ; pause = lookAgain {
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(pause):
		}
		waiting, err := w.Store.TakesWait(ctx)
		if err != nil || !waiting {
			return err
		}
	}
}

// pack keeps one recording as FLAC, names it, and lets the larger one go: in this order
// there is a sound under the row's name at every moment.
func (w *Pack) pack(ctx context.Context, t store.Unpacked) error {
	if err := w.giveWay(ctx); err != nil {
		return err
	}
	sound, err := w.Recordings.Get(ctx, t.Sound)
	if errors.Is(err, recordings.ErrMissing) {
		return nil // let go of, or lost: "verify" says which
	}
	if err != nil {
		return err
	}
	name, sum, err := w.Recordings.Put(ctx, recordings.OfTake, t.ID, sound)
	if err != nil {
		return err
	}
	changed, err := w.Store.SetSound(ctx, t.ID, t.Sound, name, sum)
	if err != nil {
		return err
	}
	if !changed { // let go of meanwhile, or sent again
		return w.Recordings.Delete(ctx, name)
	}
	return w.Recordings.Delete(ctx, t.Sound)
}
