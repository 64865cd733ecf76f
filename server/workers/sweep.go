package workers

import (
	"context"
	"log/slog"
	"time"

	"github.com/riverqueue/river"

	"earlychorus/server/jobs"
	"earlychorus/server/keeping"
	"earlychorus/server/store"
)

// Sweep queues takes again that have neither a word, nor a failure, nor a job: whatever
// became of it, what was acknowledged is heard. The queue asks for it at start and
// hourly, once per cluster.
type Sweep struct {
	river.WorkerDefaults[jobs.Sweep]

	Store *store.Store
	Queue *jobs.Queue
	Now   func() time.Time
}

const sweepEvery = time.Hour

// Work queues. Running twice is harmless: what is queued has a job.
func (w *Sweep) Work(ctx context.Context, _ *river.Job[jobs.Sweep]) error {
	queued, err := keeping.QueueUnheard(ctx, w.Store, w.Queue, w.Now())
	if queued > 0 {
		slog.Warn("takes that nobody was listening to are queued again", "takes", queued)
	}
	return err
}
