package events_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/events"
	"earlychorus/server/store/storetest"
)

// Who watches a class hears of it and of no other, once for many notices that were
// not read, and no more after stopping.
func TestWatchersHearOfTheirClass(t *testing.T) {
	s := storetest.Open(t)
	h := events.NewHub()
	ctx, cancel := context.WithCancel(t.Context())
	ended := make(chan struct{})
	go func() { h.Run(ctx, s.DSN()); close(ended) }()
	reed, stop := h.Watch("reed")
	brass, stopBrass := h.Watch("brass")
	defer stopBrass()
	say := func(class string) {
		_, err := s.SQL().Exec("SELECT pg_notify('class_changed', $1)", class)
		require.NoError(t, err)
	}
	require.Eventually(t, func() bool { // it listens as soon as it is connected
		say("reed")
		select {
		case <-reed:
			return true
		default:
			return false
		}
	}, time.Minute, 20*time.Millisecond)
	for range 5 {
		say("reed")
	}
	// Notices come in order: once one for the brass is here, all before it are.
	marked := func() {
		say("brass")
		select {
		case <-brass:
		case <-time.After(time.Minute):
			t.Fatal("the brass were never told")
		}
	}
	marked()
	require.Len(t, reed, 1)
	<-reed
	stop()
	say("reed")
	marked()
	assert.Empty(t, reed)
	cancel()
	<-ended
}
