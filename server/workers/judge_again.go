package workers

import (
	"context"
	"errors"
	"log/slog"
	"time"

	"github.com/riverqueue/river"

	"earlychorus/server/jobs"
	"earlychorus/server/store"
)

// JudgeAgain gives takes that an older ear judged to the present one, the latest
// first, so that what was kept says what would be said today. The queue asks for it
// at start and daily, once per cluster; a run that is stopped goes on where it was.
type JudgeAgain struct {
	river.WorkerDefaults[jobs.JudgeAgain]

	Analyze *AnalyzeTake
	Store   *store.Store
	Now     func() time.Time
}

const (
	judgeAgainTime = 20 * time.Hour
	againAtOnce    = 50
	tellEvery      = 100 // takes
	// breather lets takes that came just now go first.
	breather = 20 * time.Millisecond
)

// Timeout gives it longer than a take: years may have to be heard again.
func (w *JudgeAgain) Timeout(*river.Job[jobs.JudgeAgain]) time.Duration { return judgeAgainTime }

// Work judges again. Running twice is harmless.
func (w *JudgeAgain) Work(ctx context.Context, _ *river.Job[jobs.JudgeAgain]) error {
	if done, err := w.Store.JudgedAgain(ctx, Version); done || err != nil {
		return err
	}
	all, err := w.Store.CountJudgedBefore(ctx, Version)
	if err != nil {
		return err
	}
	for done, before := 0, (store.OldJudgement{ReceivedAt: w.Now()}); ; {
		old, err := w.Store.JudgedBefore(ctx, Version, before, againAtOnce)
		if err != nil {
			return err
		}
		if len(old) == 0 {
			return w.Store.SetJudgedAgain(ctx, Version, w.Now().UTC())
		}
		for _, t := range old {
			if err := w.again(ctx, t.ID); err != nil {
				return err
			}
			before = t
			if done++; done%tellEvery == 0 || done == all {
				slog.Info("judging takes again", "done", done, "of", all)
			}
		}
	}
}

// again judges one take. One that cannot be keeps what was said of it.
func (w *JudgeAgain) again(ctx context.Context, id string) error {
	select {
	case <-ctx.Done():
		return ctx.Err()
	case <-time.After(breather):
	}
	err := w.Analyze.hear(ctx, id, keepOld)
	var cancelled *river.JobCancelError
	if errors.As(err, &cancelled) {
		slog.Warn("a take could not be judged again", "take", id, "error", err)
		return nil
	}
	return err
}
