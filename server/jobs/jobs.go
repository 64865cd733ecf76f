// Package jobs names what may be asked of the workers, and asks it.
package jobs

import (
	"context"
	"database/sql"
	"fmt"
	"log/slog"
	"time"

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

// pauses are those between attempts: a hiccup is over in seconds, a restart in a minute.
var pauses = []time.Duration{
	time.Second, 3 * time.Second, 10 * time.Second, 30 * time.Second, time.Minute, 2 * time.Minute, 5 * time.Minute,
}

// mostAttempts take nine minutes with the pauses between them; then the player is told.
const mostAttempts = 8

// Pause returns how long to wait after a job's n-th attempt, counted from 1.
func Pause(attempt int) time.Duration { return pauses[min(max(attempt, 1), len(pauses))-1] }

// Queues of what nobody waits for. Each has one worker a process, so that it never takes
// the place of a player's take; what may go on for a night has one of its own.
const (
	Upkeep  = "upkeep"
	Nightly = "nightly"
	Post    = "post" // letters: a slow mail server holds nothing else up
)

// once is put in once however many ask for it: a second run does not begin while one
// is waiting or under way.
func once(queue string) river.InsertOpts {
	return river.InsertOpts{
		Queue:       queue,
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

// LetGo asks for what was kept long enough to be let go of. The workers ask for it
// themselves, daily.
type LetGo struct {
	// For tells an asking apart that must not be taken for one that is under way already, and may
	// be past what it is about; "" for the daily one.
	For string `json:"for,omitempty"`
}

// Kind names the job in the queue.
func (LetGo) Kind() string { return "let_go" }

// InsertOpts are upkeep's.
func (LetGo) InsertOpts() river.InsertOpts { return once(Upkeep) }

// JudgeAgain asks for what an older ear judged to be judged by the present one. The
// workers ask for it themselves.
type JudgeAgain struct{}

// Kind names the job in the queue.
func (JudgeAgain) Kind() string { return "judge_again" }

// InsertOpts are those of what may go on for long.
func (JudgeAgain) InsertOpts() river.InsertOpts { return once(Nightly) }

// Pack asks for recordings to be made smaller that were kept as they came.
type Pack struct{}

// Kind names the job in the queue.
func (Pack) Kind() string { return "pack" }

// InsertOpts are upkeep's.
func (Pack) InsertOpts() river.InsertOpts { return once(Upkeep) }

// Sweep asks for takes to be queued again that nobody is listening to.
type Sweep struct{}

// Kind names the job in the queue.
func (Sweep) Kind() string { return "sweep" }

// InsertOpts are upkeep's.
func (Sweep) InsertOpts() river.InsertOpts { return once(Upkeep) }

// Backup asks for a copy of everything. The workers ask for it themselves, nightly.
type Backup struct{}

// Kind names the job in the queue.
func (Backup) Kind() string { return "backup" }

// InsertOpts are those of what may go on for long.
func (Backup) InsertOpts() river.InsertOpts { return once(Nightly) }

// The letters there are.
const (
	LetterReset      = "reset"
	LetterInvitation = "invitation"
	LetterSummary    = "summary"
	LetterHome       = "home"
)

// SendLetter asks for a letter to be written and sent. It holds no secret.
type SendLetter struct {
	Letter   string `json:"letter"`
	Director string `json:"director"`         // to whom; of an invitation, by whom
	Email    string `json:"email,omitempty"`  // of who is invited
	Class    string `json:"class,omitempty"`  // that an invitation is to
	Pass     string `json:"pass,omitempty"`   // of a family that a letter goes home to
	Monday   string `json:"monday,omitempty"` // of a summary's week
	Site     string `json:"site"`             // where people reach the program
}

// Kind names the job in the queue.
func (SendLetter) Kind() string { return "send_letter" }

// InsertOpts are those of what somebody waits for, and are tried for minutes.
func (SendLetter) InsertOpts() river.InsertOpts {
	return river.InsertOpts{Queue: Post, MaxAttempts: mostAttempts}
}

// WriteSummaries asks for the weekly letters that are due.
type WriteSummaries struct{}

// Kind names the job in the queue.
func (WriteSummaries) Kind() string { return "write_summaries" }

// InsertOpts are upkeep's.
func (WriteSummaries) InsertOpts() river.InsertOpts { return once(Upkeep) }

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

// AddNow queues a job by itself, where nothing is saved with it.
func (q *Queue) AddNow(ctx context.Context, job river.JobArgs) error {
	if _, err := q.client.Insert(ctx, job, nil); err != nil {
		return fmt.Errorf("jobs: queue %s: %w", job.Kind(), err)
	}
	return nil
}
