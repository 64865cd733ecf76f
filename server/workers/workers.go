package workers

import (
	"context"
	"database/sql"
	"fmt"
	"log/slog"
	"runtime"
	"time"

	"earlychorus/server/jobs"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"
)

// Jobs is what a pool does.
type Jobs struct {
	Analyze *AnalyzeTake
	LetGo   *LetGo
	Again   *JudgeAgain
}

// Pool runs jobs until it is stopped.
type Pool struct{ client *river.Client[*sql.Tx] }

const (
	pollEvery     = 100 * time.Millisecond // a player is waiting for the ribbon
	fetchCooldown = 50 * time.Millisecond
	jobTimeout    = 2 * time.Minute
	rescueAfter   = 5 * time.Minute // of a worker on another machine that died
)

// NewPool prepares workers. name must be the same each time this machine's
// folder is served, and no other machine's: jobs that a killed run of the
// same name left half done are taken up at once.
func NewPool(db *sql.DB, name string, does Jobs) (*Pool, error) {
	if err := takeUpOrphans(db, name); err != nil {
		return nil, err
	}
	workers := river.NewWorkers()
	river.AddWorker(workers, does.Analyze)
	river.AddWorker(workers, does.LetGo)
	river.AddWorker(workers, does.Again)
	client, err := river.NewClient(riverdatabasesql.New(db), &river.Config{
		ID:                   name,
		Workers:              workers,
		JobTimeout:           jobTimeout,
		RescueStuckJobsAfter: rescueAfter,
		FetchPollInterval:    pollEvery,
		FetchCooldown:        fetchCooldown,
		Logger:               slog.New(slog.DiscardHandler),
		Queues:               map[string]river.QueueConfig{river.QueueDefault: {MaxWorkers: max(1, runtime.NumCPU())}},
		PeriodicJobs:         []*river.PeriodicJob{daily(jobs.LetGo{}), daily(jobs.JudgeAgain{})},
		ErrorHandler:         reporter{does.Analyze},
	})
	if err != nil {
		return nil, fmt.Errorf("workers: %w", err)
	}
	return &Pool{client}, nil
}

// daily asks for a job at start, and every day after.
func daily(job river.JobArgs) *river.PeriodicJob {
	return river.NewPeriodicJob(
		river.PeriodicInterval(letGoEvery),
		func() (river.JobArgs, *river.InsertOpts) { return job, nil },
		&river.PeriodicJobOpts{RunOnStart: true},
	)
}

// takeUpOrphans makes the jobs available again that a run of this name was
// working on when it died. Only one run of a name lives at a time.
func takeUpOrphans(db *sql.DB, name string) error {
	_, err := db.Exec(`UPDATE river_job SET state = 'available', scheduled_at = now()
		WHERE state = 'running' AND attempted_by[array_upper(attempted_by, 1)] = $1`, name)
	if err != nil {
		return fmt.Errorf("workers: %w", err)
	}
	return nil
}

// Start begins to run jobs, until Stop.
func (p *Pool) Start(ctx context.Context) error { return p.client.Start(ctx) }

// Stop ends running jobs; they will be run again.
func (p *Pool) Stop(ctx context.Context) error { return p.client.StopAndCancel(ctx) }
