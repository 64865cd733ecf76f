package workers

import (
	"context"
	"fmt"
	"log/slog"
	"time"

	"github.com/riverqueue/river"

	"earlychorus/server/jobs"
	"earlychorus/server/keeping"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// LetGo lets recordings and voice notes go that were kept as long as their class wants,
// and what is nobody's: parts of takes that never came whole, files that were being
// written when a run died, and sounds that no row names. The queue asks for it daily,
// once per cluster.
type LetGo struct {
	river.WorkerDefaults[jobs.LetGo]

	Store      *store.Store
	Recordings *recordings.Store
	Now        func() time.Time
}

const (
	// keepParts is how long the parts of an unfinished take are kept; its device has
	// them all.
	keepParts = 7 * 24 * time.Hour
	// keepNobodys is how long a half-written file is left alone: it may be on its way.
	keepNobodys = 24 * time.Hour
	// keepUnnamed is how long a sound is that no row names: a database that was brought
	// back to an older day is noticed by then.
	keepUnnamed = 14 * 24 * time.Hour
	letGoEvery  = 24 * time.Hour
	letGoTime   = time.Hour
	soundsAtOne = 200 // time
)

// Timeout gives it longer than a take: a year may end.
func (w *LetGo) Timeout(*river.Job[jobs.LetGo]) time.Duration { return letGoTime }

// Work lets go. Running twice is harmless.
func (w *LetGo) Work(ctx context.Context, _ *river.Job[jobs.LetGo]) error {
	now := w.Now()
	if err := w.Recordings.DropPartsBefore(ctx, now.Add(-keepParts)); err != nil {
		return fmt.Errorf("old parts: %w", err)
	}
	if _, err := w.Recordings.Sweep(ctx, now.Add(-keepNobodys)); err != nil {
		return fmt.Errorf("half-written files: %w", err)
	}
	if err := w.each(ctx, w.Store.SoundsToLetGo, w.Store.SoundGone); err != nil {
		return fmt.Errorf("old recordings: %w", err)
	}
	if err := w.each(ctx, w.Store.SoundsWithoutConsent, w.Store.SoundGone); err != nil {
		return fmt.Errorf("recordings that may not be kept: %w", err)
	}
	if err := w.each(ctx, w.Store.TakesToForget, w.Store.ForgetTake); err != nil {
		return fmt.Errorf("old measures: %w", err)
	}
	if err := w.each(ctx, w.Store.VoicesToLetGo, w.Store.VoiceGone); err != nil {
		return fmt.Errorf("old voice notes: %w", err)
	}
	if err := w.Store.ForgetGuesses(ctx, now); err != nil {
		return fmt.Errorf("old counts of guessing: %w", err)
	}
	swept, err := keeping.SweepOrphans(ctx, w.Store, w.Recordings, now.Add(-keepUnnamed))
	if err != nil {
		return fmt.Errorf("sounds of nobody: %w", err)
	}
	if swept > 0 {
		slog.Info("sounds that no take names were let go of", "sounds", swept)
	}
	return nil
}

// each deletes the sounds whose time is up. The sound goes first: a run that dies in
// between deletes it again.
func (w *LetGo) each(
	ctx context.Context,
	due func(context.Context, time.Time, int) ([]store.Kept, error),
	gone func(context.Context, string, time.Time) error,
) error {
	for {
		sounds, err := due(ctx, w.Now(), soundsAtOne)
		if err != nil || len(sounds) == 0 {
			return err
		}
		for _, kept := range sounds {
			if kept.Sound != "" {
				if err := w.Recordings.Delete(ctx, kept.Sound); err != nil {
					return err
				}
			}
			if err := gone(ctx, kept.ID, w.Now().UTC()); err != nil {
				return err
			}
		}
	}
}
