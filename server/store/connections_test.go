package store_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sync/errgroup"

	"earlychorus/server/store/storetest"
)

// A class that sends at the bell is answered over the same few connections each time: to
// open one costs the database a process and both sides a thousand hashes.
func TestConnectionsAreKept(t *testing.T) {
	s := storetest.Open(t)
	together := func() {
		group, ctx := errgroup.WithContext(t.Context())
		for range 8 {
			group.Go(func() error {
				_, err := s.SQL().ExecContext(ctx, "SELECT pg_sleep(0.05)")
				return err
			})
		}
		require.NoError(t, group.Wait())
	}
	for range 3 {
		together()
	}
	assert.Zero(t, s.SQL().Stats().MaxIdleClosed, "connections that were closed at once")
}
