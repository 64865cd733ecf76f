package workers

import (
	"context"
	"database/sql"
	"fmt"
	"log/slog"
	"time"
)

// A worker holds a lock of the database under its name for as long as it lives, however
// it dies. Jobs whose worker's lock is free are nobody's, and are taken up by the rest.

// locks keeps our locks apart from those of others on the same database.
const locks = 0x4561436c // "EaCl"

const lookEvery = 10 * time.Second

// alive holds a worker's lock on a connection of its own.
type alive struct {
	name string
	db   *sql.DB
	conn *sql.Conn
	stop context.CancelFunc
	done chan struct{}
}

// live takes the lock, and takes up the jobs of the dead now and from then on.
func live(db *sql.DB, name string) (*alive, error) {
	ctx, stop := context.WithCancel(context.Background())
	a := &alive{
		name: name,
		db:   db,
		stop: stop,
		done: make(chan struct{}),
	}
	if err := a.look(ctx); err != nil {
		stop()
		return nil, err
	}
	go func() {
		defer close(a.done)
		tick := time.NewTicker(lookEvery)
		defer tick.Stop()
		for {
			select {
			case <-ctx.Done():
				return
			case <-tick.C:
			}
			if err := a.look(ctx); err != nil && ctx.Err() == nil {
				slog.Error("the workers' locks could not be looked at", "error", err)
			}
		}
	}()
	return a, nil
}

// look makes sure of our own lock and takes up the jobs of whoever has none.
func (a *alive) look(ctx context.Context) error {
	if err := a.hold(ctx); err != nil {
		return err
	}
	taken, err := a.db.ExecContext(ctx, `
		UPDATE river_job SET state = 'available', scheduled_at = now()
		WHERE id IN (SELECT id FROM river_job WHERE state = 'running')
			AND pg_try_advisory_xact_lock($1, hashtext(attempted_by[array_upper(attempted_by, 1)]))`, locks)
	if err != nil {
		return fmt.Errorf("workers: take up the jobs of the dead: %w", err)
	}
	if n, err := taken.RowsAffected(); err == nil && n > 0 {
		slog.Warn("jobs of a worker that died are taken up", "jobs", n)
	}
	return nil
}

// hold keeps the lock; a connection that was lost took it along.
func (a *alive) hold(ctx context.Context) error {
	if a.conn != nil && a.conn.PingContext(ctx) == nil {
		return nil
	}
	conn, err := a.db.Conn(ctx)
	if err != nil {
		return fmt.Errorf("workers: %w", err)
	}
	a.conn = conn
	// Shared: a lost connection may hold it a while longer than we do.
	if _, err := conn.ExecContext(ctx, "SELECT pg_advisory_lock_shared($1, hashtext($2))", locks, a.name); err != nil {
		return fmt.Errorf("workers: %w", err)
	}
	return nil
}

// end gives the lock back.
func (a *alive) end() {
	a.stop()
	<-a.done
	if a.conn == nil {
		return
	}
	// Back to the pool without its lock.
	_, _ = a.conn.ExecContext(context.Background(), "SELECT pg_advisory_unlock_shared($1, hashtext($2))", locks, a.name)
	_ = a.conn.Close()
}
