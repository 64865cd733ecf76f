package main

import (
	"context"
	"crypto/rand"
	"fmt"
	"os"
	"path/filepath"
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
type where struct{ data, database string }

func (w *where) flags(c *cobra.Command) {
	c.Flags().StringVar(&w.data, "data", "data", "folder for recordings and the private database")
	c.Flags().StringVar(&w.database, "database", "", "URL of an existing PostgreSQL database, instead of a private one")
}

// running is everything that runs: opened in order, closed in reverse.
type running struct {
	*app.Web
	closers []func()
}

func (r *running) close() {
	for n := len(r.closers) - 1; n >= 0; n-- {
		r.closers[n]()
	}
}

func (r *running) onClose(f func()) { r.closers = append(r.closers, f) }

const stopTimeout = 10 * time.Second

// open starts what is needed and migrates. The caller closes it even on error.
func open(ctx context.Context, w where) (*running, error) {
	r := &running{}
	if err := r.claim(w.data); err != nil {
		return r, err
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
	db, err := store.Open(dsn)
	if err != nil {
		return r, err
	}
	r.onClose(func() { _ = db.Close() })
	if err := db.Migrate(ctx); err != nil {
		return r, err
	}
	kept, err := recordings.InFolder(filepath.Join(w.data, "recordings"))
	if err != nil {
		return r, err
	}
	r.onClose(func() { _ = kept.Close() })
	name, err := workerName(w.data)
	if err != nil {
		return r, err
	}
	parts := app.Parts{Store: db, Recordings: kept, Now: time.Now}
	if r.Web, err = app.Serve(parts); err != nil {
		return r, err
	}
	r.onClose(r.Web.Stop)
	work, err := app.Work(parts, name)
	if err != nil {
		return r, err
	}
	r.onClose(func() {
		ctx, cancel := context.WithTimeout(context.Background(), stopTimeout)
		defer cancel()
		_ = work.Stop(ctx)
	})
	return r, nil
}

// claim makes sure that one program at a time uses the data folder.
func (r *running) claim(data string) error {
	if err := os.MkdirAll(data, 0o755); err != nil {
		return err
	}
	lock, err := os.OpenFile(filepath.Join(data, "lock"), os.O_CREATE|os.O_RDWR, 0o644)
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

// workerName is this data folder's own, kept in it, so that the next run knows
// which half-done jobs are its own.
func workerName(data string) (string, error) {
	file := filepath.Join(data, "worker-name")
	if name, err := os.ReadFile(file); err == nil {
		return strings.TrimSpace(string(name)), nil
	}
	name := "worker-" + strings.ToLower(rand.Text()[:10])
	return name, os.WriteFile(file, []byte(name+"\n"), 0o644)
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
