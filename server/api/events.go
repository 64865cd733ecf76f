package api

import (
	"fmt"
	"net/http"
	"time"
)

const (
	// tellAtMost is how often a page is told; a bell ring is many takes at once.
	tellAtMost = 500 * time.Millisecond
	// stillThere keeps proxies from closing a quiet line.
	stillThere = 20 * time.Second
)

// streamChanges tells a director's page when something happens in the class, as
// server-sent events.
func (a *API) streamChanges(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	changed, stop := a.Events.Watch(class.ID)
	defer stop()
	line := http.NewResponseController(w)
	w.Header().Set("Content-Type", "text/event-stream")
	w.Header().Set("Cache-Control", "no-store")
	say := func(text string) bool {
		_, err := fmt.Fprint(w, text)
		return err == nil && line.Flush() == nil
	}
	if !say(": open\n\n") {
		return nil
	}
	alive := time.NewTicker(stillThere)
	defer alive.Stop()
	for {
		select {
		case <-r.Context().Done():
			return nil // the page asks again by itself
		case <-a.Events.Closed():
			return nil
		case <-alive.C:
			if !say(": still there\n\n") {
				return nil
			}
		case <-changed:
			if !say("event: changed\ndata: {}\n\n") {
				return nil
			}
			select {
			case <-time.After(tellAtMost):
			case <-a.Events.Closed():
				return nil
			}
		}
	}
}
