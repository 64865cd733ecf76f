package main

import (
	"context"
	"crypto/rand"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"runtime"
	"runtime/debug"
	"strings"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"earlychorus/server/app"
	"earlychorus/server/demo"
	"earlychorus/server/postgres"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
)

// where says what a command works on.
type where struct{ data, database, recordings, log, level string }

func (w *where) flags(c *cobra.Command) {
	f := c.Flags()
	f.StringVar(&w.data, "data", "data", "folder for recordings and the private database")
	f.StringVar(&w.database, "database", "", "URL of an existing PostgreSQL database, instead of a private one")
	f.StringVar(
		&w.recordings,
		"recordings",
		"",
		"where recordings are: file:///FOLDER or s3://BUCKET/PREFIX?endpoint=URL; a folder beside the data otherwise",
	)
	f.StringVar(&w.log, "log", "text", "how the log is written: text or json")
	f.StringVar(&w.level, "log-level", "warn", "what is logged: error, warn, or info with a line for each request")
}

// logger writes the program's log to standard error, as it was asked.
func (w *where) logger() error {
	var level slog.Level
	if err := level.UnmarshalText([]byte(w.level)); err != nil {
		return fmt.Errorf("--log-level: say error, warn or info")
	}
	options := &slog.HandlerOptions{Level: level}
	switch w.log {
	case "text":
		slog.SetDefault(slog.New(slog.NewTextHandler(os.Stderr, options)))
	case "json":
		slog.SetDefault(slog.New(slog.NewJSONHandler(os.Stderr, options)))
	default:
		return fmt.Errorf("--log: say text or json")
	}
	return nil
}

// running is everything that runs: opened in order, closed in reverse.
type running struct {
	*app.Web
	parts   app.Parts
	closers []func()
}

func (r *running) close() {
	for n := len(r.closers) - 1; n >= 0; n-- {
		r.closers[n]()
	}
}

func (r *running) onClose(f func()) { r.closers = append(r.closers, f) }

// Memory that the program keeps within, as long as GOMEMLIMIT says nothing else: some of
// its own, and what listening takes on each core.
const (
	memoryOwn     = 96 << 20
	memoryPerCore = 80 << 20
)

// keepSmall asks the runtime to collect sooner than to grow: schools' machines are small.
func keepSmall() {
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(memoryOwn + memoryPerCore*int64(runtime.NumCPU()))
	}
}

// stopTimeout is how long requests and jobs under way have, each, once the program is
// asked to stop; all together it is gone in five seconds.
const stopTimeout = 2 * time.Second

// connect starts what is needed and opens it, as bare as it is: the caller migrates, and
// closes it even on error.
func connect(ctx context.Context, w where) (*running, error) {
	r := &running{parts: app.Parts{Now: time.Now}}
	keepSmall()
	if err := w.logger(); err != nil {
		return r, err
	}
	if w.database == "" || w.recordings == "" {
		if err := r.claim(w.data); err != nil {
			return r, err
		}
	}
	dsn := w.database
	if dsn == "" {
		server, err := postgres.Start(ctx, postgres.Options{Folder: filepath.Join(w.data, "postgres")})
		if err != nil {
			return r, err
		}
		r.onClose(server.Stop)
		dsn = server.DSN
	}
	var err error
	if r.parts.Store, err = store.Open(dsn); err != nil {
		return r, err
	}
	r.onClose(func() { _ = r.parts.Store.Close() })
	if r.parts.Recordings, err = w.openRecordings(); err != nil {
		return r, err
	}
	r.onClose(func() { _ = r.parts.Recordings.Close() })
	return r, nil
}

// open connects, migrates, and begins to answer questions of the program's own; nothing
// works in it yet. The caller closes it even on error.
func open(ctx context.Context, w where) (*running, error) {
	r, err := connect(ctx, w)
	if err != nil {
		return r, err
	}
	if err := r.parts.Store.Migrate(ctx); err != nil {
		return r, err
	}
	if err := r.parts.Store.OwnRecordings(ctx, r.parts.Recordings); err != nil {
		return r, fmt.Errorf("%w: give every process the same --recordings", err)
	}
	if r.Web, err = app.Serve(r.parts); err != nil {
		return r, err
	}
	r.onClose(r.Web.Stop)
	return r, nil
}

// openBeside is open for commands that may run while a server does, on its own private
// database.
func openBeside(ctx context.Context, w where) (*running, error) {
	if w.database == "" {
		if dsn, ok := postgres.Running(filepath.Join(w.data, "postgres")); ok {
			w.database = dsn
		}
	}
	// Named, the folder is nobody's alone: the server beside has it too.
	if w.database != "" && w.recordings == "" {
		folder, err := filepath.Abs(filepath.Join(w.data, "recordings"))
		if err != nil {
			return &running{}, err
		}
		w.recordings = "file://" + folder
	}
	return open(ctx, w)
}

// openRecordings opens the recordings that are named, or those beside the data.
func (w where) openRecordings() (*recordings.Store, error) {
	if w.recordings == "" {
		return recordings.InFolder(filepath.Join(w.data, "recordings"))
	}
	return recordings.At(w.recordings)
}

// work begins to run jobs, until close.
func (r *running) work() error {
	work, err := app.Work(r.parts, workerName())
	if err != nil {
		return err
	}
	r.onClose(func() {
		ctx, cancel := context.WithTimeout(context.Background(), stopTimeout)
		defer cancel()
		_ = work.Stop(ctx)
	})
	return nil
}

// claim makes sure that one program at a time uses the data folder.
func (r *running) claim(data string) error {
	// Others may pass through to the database's own folder, and list nothing.
	if err := os.MkdirAll(data, 0o711); err != nil {
		return err
	}
	lock, err := os.OpenFile(filepath.Join(data, "lock"), os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return err
	}
	if err := syscall.Flock(int(lock.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		_ = lock.Close()
		return fmt.Errorf(
			"the data folder %s is in use by another run: stop that one, or choose another with --data",
			data,
		)
	}
	r.onClose(func() { _ = lock.Close() })
	return nil
}

// workerName is this process's own: where it runs, and something nobody else has.
func workerName() string {
	host, err := os.Hostname()
	if err != nil {
		host = "worker"
	}
	return host + "-" + strings.ToLower(rand.Text()[:10])
}

// seeder fills an empty database with the demo, telling how far it is.
func (r *running) seeder() demo.Seeder {
	last := -1
	return demo.Seeder{
		Store:  r.Store,
		Intake: r.Intake,
		Now:    time.Now,
		Progress: func(done, of int, what string) {
			if done != last && (last >= 0 || done < of) {
				fmt.Printf("\rDemo: %d of %d %s", done, of, what)
				if done == of {
					fmt.Println(".")
				}
			}
			last = done
		},
	}
}

// unlessStopped is how a run ended: one that is stopped while it begins has not failed.
func unlessStopped(ctx context.Context, err error) error {
	if ctx.Err() != nil {
		return nil
	}
	return err
}
