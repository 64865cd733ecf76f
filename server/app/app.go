// Package app puts the program together: its web half, which answers, and its work
// half, which runs the queue's jobs. A laptop runs both in one process; a district
// runs as many of each as it wants, on one database and one store of recordings.
package app

import (
	"context"
	"io/fs"
	"net/http"
	"net/url"
	"time"

	"earlychorus/server/api"
	"earlychorus/server/events"
	"earlychorus/server/health"
	"earlychorus/server/intake"
	"earlychorus/server/jobs"
	"earlychorus/server/mail"
	"earlychorus/server/recordings"
	"earlychorus/server/standin"
	"earlychorus/server/store"
	"earlychorus/server/workers"
)

// Parts are what both halves stand on: a migrated store, the recordings, a clock.
// They stay the caller's to close, after both halves are stopped.
type Parts struct {
	Store      *store.Store
	Recordings *recordings.Store
	Now        func() time.Time
	Public     *url.URL // where people reach the program; nil: where it is asked
	Proxies    []string // networks of proxies whose word on who asks is taken
	Post       mail.Carrier
	BackupTo   *recordings.Store // where nightly backups go; nil: nowhere
	BackupKeep int               // how many of them are kept
	Mailbox    bool              // letters lie in the stand-in, whose page is open
	Provider   *standin.Provider
}

// Web is the half that answers.
type Web struct {
	Parts
	Intake intake.Intake

	// Watch tells whoever asks how the program is.
	Watch *health.Watch

	events *events.Hub
	stop   context.CancelFunc
}

// Serve prepares the half that answers; Handler has it.
func Serve(p Parts) (*Web, error) {
	queue, err := jobs.NewQueue(p.Store.SQL())
	if err != nil {
		return nil, err
	}
	w := &Web{
		Parts:  p,
		Intake: intake.Intake{Store: p.Store, Recordings: p.Recordings, Queue: queue},
		Watch:  health.New(p.Store, p.Recordings),
		events: events.NewHub(),
	}
	ctx, stop := context.WithCancel(context.Background())
	w.stop = stop
	go w.events.Run(ctx, p.Store.DSN())
	return w, nil
}

// Handler returns everything the program answers: the API and, unless it is nil,
// the built page. stop ends the handler's upkeep.
func (w *Web) Handler(page fs.FS) (handler http.Handler, stop func()) {
	a := &api.API{
		Store:      w.Store,
		Recordings: w.Recordings,
		Intake:     w.Intake,
		Events:     w.events,
		Now:        w.Now,
		Web:        page,
		Watch:      w.Watch,
		Public:     w.Public,
		Proxies:    w.Proxies,
		Mail:       w.Post != nil,
		Mailbox:    w.Mailbox,
		BackupDays: w.backupDays(),
		Provider:   w.Provider,
	}
	return a.Handler()
}

// backupDays is how long what is deleted is still in a nightly backup.
func (w *Web) backupDays() int {
	if w.BackupTo == nil {
		return 0
	}
	return w.BackupKeep
}

// Queue takes jobs.
func (w *Web) Queue() *jobs.Queue { return w.Intake.Queue }

// EndLines ends the lines that pages hold open, which would keep the server from
// stopping.
func (w *Web) EndLines() { w.events.Close() }

// Stop ends what runs beside the handler.
func (w *Web) Stop() { w.stop() }

// Work starts the half that runs jobs, until Stop. name is the one they are taken
// under (see workers.NewPool).
func Work(p Parts, name string) (*workers.Pool, error) {
	queue, err := jobs.NewQueue(p.Store.SQL())
	if err != nil {
		return nil, err
	}
	analyze := &workers.AnalyzeTake{Store: p.Store, Recordings: p.Recordings, Now: p.Now}
	pool, err := workers.NewPool(p.Store.SQL(), name, workers.Jobs{
		Analyze: analyze,
		LetGo:   &workers.LetGo{Store: p.Store, Recordings: p.Recordings, Now: p.Now},
		Again:   &workers.JudgeAgain{Analyze: analyze, Store: p.Store, Now: p.Now},
		Pack:    &workers.Pack{Store: p.Store, Recordings: p.Recordings, Now: p.Now},
		Sweep:   &workers.Sweep{Store: p.Store, Queue: queue, Now: p.Now},
		Letters: &workers.SendLetter{Store: p.Store, Post: p.Post, Now: p.Now},
		Weekly: &workers.WriteSummaries{
			Store:  p.Store,
			Queue:  queue,
			Public: p.Public,
			Now:    p.Now,
		},
		Backup: &workers.Backup{
			Store:      p.Store,
			Recordings: p.Recordings,
			To:         p.BackupTo,
			Keep:       p.BackupKeep,
			Now:        p.Now,
		},
	})
	if err != nil {
		return nil, err
	}
	return pool, pool.Start(context.Background()) // stopped in order by Stop, not by Ctrl-C
}
