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

	"earlychorus/server/demo"
	"earlychorus/server/intake"
	"earlychorus/server/jobs"
	"earlychorus/server/postgres"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
	"earlychorus/server/workers"
)

// where says what a command works on.
type where struct{ data, database string }

func (w *where) flags(c *cobra.Command) {
	c.Flags().StringVar(&w.data, "data", "data", "folder for recordings and the private database")
	c.Flags().StringVar(&w.database, "database", "", "URL of an existing PostgreSQL database, instead of a private one")
}

// house is everything that runs: opened in order, closed in reverse.
type house struct {
	store   *store.Store
	shelf   *recordings.Shelf
	intake  intake.Intake
	workers *workers.Pool
	closers []func()
}

func (h *house) close() {
	for n := len(h.closers) - 1; n >= 0; n-- {
		h.closers[n]()
	}
}

func (h *house) onClose(f func()) { h.closers = append(h.closers, f) }

// open starts what is needed and migrates. The caller closes it even on error.
func open(ctx context.Context, w where) (*house, error) {
	h := &house{}
	if err := h.claim(w.data); err != nil {
		return h, err
	}
	dsn := w.database
	if dsn == "" {
		server, err := postgres.Start(ctx, postgres.Options{Folder: filepath.Join(w.data, "postgres")})
		if err != nil {
			return h, err
		}
		h.onClose(server.Stop)
		dsn = server.DSN
	}
	var err error
	if h.store, err = store.Open(dsn); err != nil {
		return h, err
	}
	h.onClose(func() { _ = h.store.Close() })
	if err := h.store.Migrate(ctx); err != nil {
		return h, err
	}
	if h.shelf, err = recordings.InFolder(filepath.Join(w.data, "recordings")); err != nil {
		return h, err
	}
	h.onClose(func() { _ = h.shelf.Close() })
	queue, err := jobs.NewQueue(h.store.SQL())
	if err != nil {
		return h, err
	}
	h.intake = intake.Intake{Store: h.store, Recordings: h.shelf, Queue: queue}
	return h, h.startWorkers(w.data)
}

// claim makes sure that one program at a time uses the data folder.
func (h *house) claim(data string) error {
	if err := os.MkdirAll(data, 0o755); err != nil {
		return err
	}
	lock, err := os.OpenFile(filepath.Join(data, "lock"), os.O_CREATE|os.O_RDWR, 0o644)
	if err != nil {
		return err
	}
	if err := syscall.Flock(int(lock.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		_ = lock.Close()
		return fmt.Errorf("the data folder %s is in use by another run: stop that one, or choose another with --data", data)
	}
	h.onClose(func() { _ = lock.Close() })
	return nil
}

const stopTimeout = 10 * time.Second

func (h *house) startWorkers(data string) error {
	name, err := workerName(data)
	if err != nil {
		return err
	}
	h.workers, err = workers.NewPool(h.store.SQL(), name, &workers.AnalyzeTake{Store: h.store, Recordings: h.shelf, Now: time.Now})
	if err != nil {
		return err
	}
	if err := h.workers.Start(context.Background()); err != nil { // stopped in order by close, not by Ctrl-C
		return err
	}
	h.onClose(func() {
		ctx, cancel := context.WithTimeout(context.Background(), stopTimeout)
		defer cancel()
		_ = h.workers.Stop(ctx)
	})
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

// seed fills an empty database with the demo, telling how far it is.
func (h *house) seed(ctx context.Context) error {
	last := -1
	return demo.Seeder{Store: h.store, Intake: h.intake, Now: time.Now, Progress: func(done, of int, what string) {
		if done != last && (last >= 0 || done < of) {
			fmt.Printf("\rDemo: %d of %d %s", done, of, what)
			if done == of {
				fmt.Println(".")
			}
		}
		last = done
	}}.Seed(ctx)
}
