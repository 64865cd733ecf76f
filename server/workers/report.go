package workers

import (
	"context"
	"encoding/json"
	"log/slog"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/rivertype"

	"earlychorus/server/jobs"
)

// reporter logs what goes wrong and, once the last attempt has failed, tells
// the player instead of letting the take wait for ever.
type reporter struct{ analyze *AnalyzeTake }

// HandleError says that a job failed, and what became of it; the queue tries again
// by itself.
func (r reporter) HandleError(ctx context.Context, job *rivertype.JobRow, err error) *river.ErrorHandlerResult {
	slog.Error("job failed", "kind", job.Kind, "job", job.ID, "attempt", job.Attempt, "error", err)
	r.giveUp(ctx, job)
	return nil
}

// HandlePanic keeps one recording that breaks the ear from ending the ear of
// everybody else.
func (r reporter) HandlePanic(
	ctx context.Context,
	job *rivertype.JobRow,
	value any,
	trace string,
) *river.ErrorHandlerResult {
	slog.Error("job panicked", "kind", job.Kind, "job", job.ID, "attempt", job.Attempt, "panic", value, "trace", trace)
	r.giveUp(ctx, job)
	return nil
}

// giveUp tells the player after the last try. A take that waits for ever is worse
// than one that failed.
func (r reporter) giveUp(ctx context.Context, job *rivertype.JobRow) {
	var args jobs.AnalyzeTake
	if job.Attempt < job.MaxAttempts || json.Unmarshal(job.EncodedArgs, &args) != nil {
		return
	}
	if err := r.analyze.Store.FailTake(
		ctx,
		args.TakeID,
		couldNot,
	); err != nil {
		slog.Error("take could not be marked as failed", "take", args.TakeID, "error", err)
	}
}

// couldNot is what a player reads of a take that the ear failed on.
const couldNot = "This take could not be listened to. Your recording is safe; please tell your director."
