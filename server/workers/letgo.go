package workers

import (
	"context"
	"fmt"
	"time"

	"github.com/riverqueue/river"

	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// LetGo lets recordings go that were kept as long as their class wants, and parts
// of takes that never came whole. The queue asks for it daily, once per cluster.
type LetGo struct {
	river.WorkerDefaults[jobs.LetGo]

	Store      *store.Store
	Recordings *recordings.Store
	Now        func() time.Time
}

const (
	// keepParts is how long the parts of an unfinished take are kept; its device has
	// them all.
	keepParts   = 7 * 24 * time.Hour
	letGoEvery  = 24 * time.Hour
	letGoTime   = time.Hour
	soundsAtOne = 200 // time
)

// Timeout gives it longer than a take: a year may end.
func (w *LetGo) Timeout(*river.Job[jobs.LetGo]) time.Duration { return letGoTime }

// Work lets go. Running twice is harmless.
func (w *LetGo) Work(ctx context.Context, _ *river.Job[jobs.LetGo]) error {
	if err := w.Recordings.DropPartsBefore(ctx, w.Now().Add(-keepParts)); err != nil {
		return fmt.Errorf("old parts: %w", err)
	}
	if err := w.sounds(ctx); err != nil {
		return fmt.Errorf("old recordings: %w", err)
	}
	return nil
}

// sounds deletes the recordings whose time is up. The sound goes first: a run that
// dies in between deletes it again.
func (w *LetGo) sounds(ctx context.Context) error {
	for {
		ids, err := w.Store.SoundsToLetGo(ctx, w.Now(), soundsAtOne)
		if err != nil || len(ids) == 0 {
			return err
		}
		for _, id := range ids {
			if err := w.Recordings.Delete(ctx, id); err != nil {
				return err
			}
			if err := w.Store.SoundGone(ctx, id, w.Now().UTC()); err != nil {
				return err
			}
		}
	}
}
