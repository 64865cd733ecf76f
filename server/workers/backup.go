package workers

import (
	"context"
	"errors"
	"time"

	"github.com/riverqueue/river"

	"earlychorus/server/backup"
	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// Backup copies the whole cluster to a place, every night, and lets the oldest copies go.
type Backup struct {
	river.WorkerDefaults[jobs.Backup]

	Store      *store.Store
	Recordings *recordings.Store
	To         *recordings.Store // nil: nobody asked for it
	Keep       int               // how many
	Now        func() time.Time
}

const (
	backupHour = 3 // of the machine's clock
	backupTime = 6 * time.Hour
)

// Timeout gives it a night.
func (w *Backup) Timeout(*river.Job[jobs.Backup]) time.Duration { return backupTime }

// Work makes one backup, and writes down how it went.
func (w *Backup) Work(ctx context.Context, _ *river.Job[jobs.Backup]) error {
	if w.To == nil {
		return river.JobCancel(errors.New("no place for backups: give every worker the same --backup"))
	}
	note := store.BackupMade{BeganAt: w.Now().UTC()}
	made, err := backup.Make(ctx, w.Store, w.Recordings, w.To, w.Now(), func(int) {})
	if err == nil {
		_, err = backup.Rotate(ctx, w.To, w.Keep)
	}
	note.Name, note.Sounds, note.Copied, note.Missing = made.Name, made.Sounds, made.Copied, len(made.Gone)
	note.EndedAt = w.Now().UTC()
	if err != nil {
		note.Problem = err.Error()
	}
	// Written down though the night is over.
	return errors.Join(err, w.Store.NoteBackup(context.WithoutCancel(ctx), note))
}

// nightly is every night at an hour.
type nightly int

// Next returns the next night's hour.
func (hour nightly) Next(now time.Time) time.Time {
	y, m, d := now.Date()
	at := time.Date(y, m, d, int(hour), 0, 0, 0, now.Location())
	if !at.After(now) {
		at = time.Date(y, m, d+1, int(hour), 0, 0, 0, now.Location())
	}
	return at
}
