// Package events tells open pages that something happened in a class, on
// whichever machine it happened.
package events

import (
	"context"
	"log/slog"
	"sync"
	"time"

	"earlychorus/server/store"
)

// Hub passes the database's notices on to the pages this machine serves.
type Hub struct {
	mu       sync.Mutex
	watchers map[string]map[chan struct{}]bool // by class
	closed   chan struct{}
	once     sync.Once
}

// NewHub returns a hub that tells nobody anything until it runs.
func NewHub() *Hub {
	return &Hub{watchers: map[string]map[chan struct{}]bool{}, closed: make(chan struct{})}
}

// Close ends every line that is open: the program stops, and pages ask again elsewhere.
func (h *Hub) Close() { h.once.Do(func() { close(h.closed) }) }

// Closed is closed when lines are to end.
func (h *Hub) Closed() <-chan struct{} { return h.closed }

// pause is how long to wait before the database is listened to again.
const pause = time.Second

// Run listens until ctx ends. After a break everybody is told: something may have
// been missed.
func (h *Hub) Run(ctx context.Context, dsn string) {
	for ctx.Err() == nil {
		err := store.Watch(ctx, dsn, h.tell)
		if ctx.Err() != nil {
			return
		}
		slog.Warn("the database's notices were cut off", "error", err)
		select {
		case <-ctx.Done():
		case <-time.After(pause):
		}
		h.tellAll()
	}
}

// Watch returns a channel that is written to when something happened in the
// class since it was last read; stop ends it.
func (h *Hub) Watch(classID string) (changed <-chan struct{}, stop func()) {
	c := make(chan struct{}, 1)
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.watchers[classID] == nil {
		h.watchers[classID] = map[chan struct{}]bool{}
	}
	h.watchers[classID][c] = true
	return c, func() {
		h.mu.Lock()
		defer h.mu.Unlock()
		delete(h.watchers[classID], c)
		if len(h.watchers[classID]) == 0 {
			delete(h.watchers, classID)
		}
	}
}

// tell wakes whoever watches a class. Nobody is told what happened: they ask again,
// and see what they may see.
func (h *Hub) tell(classID string) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.watchers[classID] {
		notice(c)
	}
}

// tellAll wakes everybody, after the database was away: what happened meanwhile was
// told to nobody.
func (h *Hub) tellAll() {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, class := range h.watchers {
		for c := range class {
			notice(c)
		}
	}
}

// notice leaves a notice, unless one is there that was not read yet.
func notice(c chan struct{}) {
	select {
	case c <- struct{}{}:
	default:
	}
}
