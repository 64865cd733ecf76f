// Package house puts the server's parts together: what is remembered, the door
// for takes, the workers, and the API in front of them.
package house

import (
	"context"
	"io/fs"
	"log/slog"
	"net/http"
	"time"

	"earlychorus/server/api"
	"earlychorus/server/events"
	"earlychorus/server/intake"
	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
	"earlychorus/server/workers"
)

// House is a server that works but does not listen yet.
type House struct {
	Store      *store.Store
	Recordings *recordings.Shelf
	Intake     intake.Intake

	now     func() time.Time
	workers *workers.Pool
	upkeep  context.CancelFunc
	events  *events.Hub
}

// keepParts is how long the parts of an unfinished take are kept; its device has
// them all.
const (
	keepParts  = 7 * 24 * time.Hour
	sweepEvery = 24 * time.Hour
)

// letGo forgets, now and daily, the parts of takes that never came whole, and
// recordings that were kept as long as their class wants.
func (h *House) letGo(ctx context.Context) {
	for ctx.Err() == nil {
		if err := h.Recordings.DropPartsBefore(ctx, h.now().Add(-keepParts)); err != nil && ctx.Err() == nil {
			slog.Error("old parts could not be swept", "error", err)
		}
		if err := h.LetSoundsGo(ctx); err != nil && ctx.Err() == nil {
			slog.Error("old recordings could not be let go of", "error", err)
		}
		select {
		case <-ctx.Done():
		case <-time.After(sweepEvery):
		}
	}
}

// Open puts a house together and starts its workers. worker is the name jobs
// are taken under (see workers.NewPool). The store must be migrated; it and
// the shelf stay the caller's to close, after Stop.
func Open(s *store.Store, shelf *recordings.Shelf, worker string, now func() time.Time) (*House, error) {
	queue, err := jobs.NewQueue(s.SQL())
	if err != nil {
		return nil, err
	}
	pool, err := workers.NewPool(s.SQL(), worker, &workers.AnalyzeTake{Store: s, Recordings: shelf, Now: now})
	if err != nil {
		return nil, err
	}
	h := &House{
		Store:      s,
		Recordings: shelf,
		Intake:     intake.Intake{Store: s, Recordings: shelf, Queue: queue},
		now:        now,
		workers:    pool,
		events:     events.NewHub(),
	}
	ctx, cancel := context.WithCancel(context.Background())
	h.upkeep = cancel
	go h.letGo(ctx)
	go h.events.Run(ctx, s.DSN())
	return h, pool.Start(context.Background()) // stopped in order by Stop, not by Ctrl-C
}

// Handler returns everything the house answers: the API and, unless it is nil,
// the built page. stop ends the handler's upkeep.
func (h *House) Handler(page fs.FS) (handler http.Handler, stop func()) {
	a := &api.API{
		Store:      h.Store,
		Recordings: h.Recordings,
		Intake:     h.Intake,
		Events:     h.events,
		Now:        h.now,
		Web:        page,
	}
	return a.Handler()
}

// Stop ends the workers; half-done jobs are run again at the next start.
func (h *House) Stop(ctx context.Context) error {
	h.upkeep()
	return h.workers.Stop(ctx)
}

const soundsAtOnce = 200

// LetSoundsGo deletes the recordings that were kept as long as their class wants.
// The sound goes first: a run that dies in between deletes it again.
func (h *House) LetSoundsGo(ctx context.Context) error {
	for {
		ids, err := h.Store.SoundsToLetGo(ctx, h.now(), soundsAtOnce)
		if err != nil || len(ids) == 0 {
			return err
		}
		for _, id := range ids {
			if err := h.Recordings.Delete(ctx, id); err != nil {
				return err
			}
			if err := h.Store.SoundGone(ctx, id, h.now().UTC()); err != nil {
				return err
			}
		}
	}
}
