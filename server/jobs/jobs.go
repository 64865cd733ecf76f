// Package jobs names what may be asked of the workers, and asks it.
package jobs

import (
	"context"
	"database/sql"
	"fmt"
	"log/slog"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"
	"github.com/riverqueue/river/rivertype"
	"gorm.io/gorm"
)

// AnalyzeTake asks for a take to be listened to.
type AnalyzeTake struct {
	TakeID string `json:"take_id"`
}

// Kind names the job in the queue; changing it strands what is waiting.
func (AnalyzeTake) Kind() string { return "analyze_take" }

// InsertOpts go with the job and not with who works: the queue reads them when a job
// is put in, which the half that answers does.
func (AnalyzeTake) InsertOpts() river.InsertOpts { return river.InsertOpts{MaxAttempts: mostAttempts} }

// mostAttempts take six minutes with the queue's growing pauses; then the player is
// told.
const mostAttempts = 5

// LetGo asks for what was kept long enough to be let go of. The workers ask for it
// themselves, daily.
type LetGo struct{}

// Kind names the job in the queue.
func (LetGo) Kind() string { return "let_go" }

// InsertOpts try a few times; tomorrow it is asked for again.
func (LetGo) InsertOpts() river.InsertOpts { return river.InsertOpts{MaxAttempts: mostAttempts} }

// JudgeAgain asks for what an older ear judged to be judged by the present one. The
// workers ask for it themselves.
type JudgeAgain struct{}

// Kind names the job in the queue.
func (JudgeAgain) Kind() string { return "judge_again" }

// InsertOpts keep a second run from beginning while one is under way, which may take
// long.
func (JudgeAgain) InsertOpts() river.InsertOpts {
	return river.InsertOpts{
		MaxAttempts: mostAttempts,
		UniqueOpts: river.UniqueOpts{
			ByArgs: true,
			ByState: []rivertype.JobState{
				rivertype.JobStateAvailable,
				rivertype.JobStatePending,
				rivertype.JobStateRetryable,
				rivertype.JobStateRunning,
				rivertype.JobStateScheduled,
			},
		},
	}
}

// Queue takes jobs.
type Queue struct{ client *river.Client[*sql.Tx] }

// NewQueue returns a queue that only takes jobs; workers run them.
func NewQueue(db *sql.DB) (*Queue, error) {
	client, err := river.NewClient(riverdatabasesql.New(db), &river.Config{Logger: slog.New(slog.DiscardHandler)})
	if err != nil {
		return nil, fmt.Errorf("jobs: %w", err)
	}
	return &Queue{client}, nil
}

// Add queues a job in GORM's open transaction: it is there exactly if the
// transaction commits.
func (q *Queue) Add(ctx context.Context, tx *gorm.DB, job river.JobArgs) error {
	sqlTx, ok := tx.Statement.ConnPool.(*sql.Tx)
	if !ok {
		return fmt.Errorf("jobs: %s queued outside a transaction", job.Kind())
	}
	if _, err := q.client.InsertTx(ctx, sqlTx, job, nil); err != nil {
		return fmt.Errorf("jobs: queue %s: %w", job.Kind(), err)
	}
	return nil
}
