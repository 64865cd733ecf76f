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
	"github.com/riverqueue/river/rivertype"
)

// Jobs is what a pool does.
type Jobs struct {
	Analyze *AnalyzeTake
	LetGo   *LetGo
	Again   *JudgeAgain
	Pack    *Pack
	Sweep   *Sweep
	Letters *SendLetter
	Weekly  *WriteSummaries
	Backup  *Backup
}

// Pool runs jobs until it is stopped.
type Pool struct {
	client *river.Client[*sql.Tx]
	db     *sql.DB
	name   string
	alive  *alive
}

const (
	pollEvery     = 100 * time.Millisecond // a player is waiting for the ribbon
	fetchCooldown = 50 * time.Millisecond
	jobTimeout    = 2 * time.Minute
	rescueAfter   = 5 * time.Minute // of a worker on another machine that died
)

// NewPool prepares workers under a name that no other process has. Jobs that a killed
// run left half done are taken up within seconds of its death.
func NewPool(db *sql.DB, name string, does Jobs) (*Pool, error) {
	workers := river.NewWorkers()
	river.AddWorker(workers, does.Analyze)
	river.AddWorker(workers, does.LetGo)
	river.AddWorker(workers, does.Again)
	river.AddWorker(workers, does.Pack)
	river.AddWorker(workers, does.Sweep)
	river.AddWorker(workers, does.Letters)
	river.AddWorker(workers, does.Weekly)
	river.AddWorker(workers, does.Backup)
	periodic := []*river.PeriodicJob{
		every(letGoEvery, jobs.LetGo{}),
		every(letGoEvery, jobs.JudgeAgain{}),
		every(packEvery, jobs.Pack{}),
		every(sweepEvery, jobs.Sweep{}),
		every(summariesEvery, jobs.WriteSummaries{}),
	}
	if does.Backup.To != nil {
		periodic = append(periodic, river.NewPeriodicJob(
			nightly(backupHour),
			func() (river.JobArgs, *river.InsertOpts) { return jobs.Backup{}, nil },
			nil,
		))
	}
	client, err := river.NewClient(riverdatabasesql.New(db), &river.Config{
		ID:                   name,
		Workers:              workers,
		JobTimeout:           jobTimeout,
		RescueStuckJobsAfter: rescueAfter,
		FetchPollInterval:    pollEvery,
		FetchCooldown:        fetchCooldown,
		Logger:               slog.New(slog.DiscardHandler),
		Queues: map[string]river.QueueConfig{
			river.QueueDefault: {MaxWorkers: max(1, runtime.NumCPU())},
			jobs.Upkeep:        {MaxWorkers: 1}, // nobody waits for it
			jobs.Nightly:       {MaxWorkers: 1},
			jobs.Post:          {MaxWorkers: 2},
		},
		PeriodicJobs: periodic,
		RetryPolicy:  pauses{},
		ErrorHandler: reporter{does.Analyze},
	})
	if err != nil {
		return nil, fmt.Errorf("workers: %w", err)
	}
	return &Pool{client: client, db: db, name: name}, nil
}

// pauses are the queue's between attempts.
type pauses struct{}

// NextRetry returns when a job that failed is tried again.
func (pauses) NextRetry(job *rivertype.JobRow) time.Time {
	return time.Now().Add(jobs.Pause(len(job.Errors) + 1))
}

// every asks for a job at start, and from then on.
func every(pause time.Duration, job river.JobArgs) *river.PeriodicJob {
	return river.NewPeriodicJob(
		river.PeriodicInterval(pause),
		func() (river.JobArgs, *river.InsertOpts) { return job, nil },
		&river.PeriodicJobOpts{RunOnStart: true},
	)
}

// Start begins to run jobs, until Stop.
func (p *Pool) Start(ctx context.Context) (err error) {
	if p.alive, err = live(p.db, p.name); err != nil {
		return err
	}
	return p.client.Start(ctx)
}

// Stop ends running jobs; they will be run again.
func (p *Pool) Stop(ctx context.Context) error {
	err := p.client.StopAndCancel(ctx)
	if p.alive != nil {
		p.alive.end()
	}
	return err
}
