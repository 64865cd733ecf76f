package store_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// An older program keeps off what a newer one has changed.
func TestANewerSchemaIsRefused(t *testing.T) {
	s := storetest.Open(t)
	require.NoError(t, s.Ready(t.Context()))
	require.NoError(t, s.Migrate(t.Context()), "a second start")
	_, err := s.SQL().Exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, true)")
	require.NoError(t, err)
	assert.ErrorIs(t, s.Migrate(t.Context()), store.ErrNewerSchema)
	assert.ErrorContains(t, s.Ready(t.Context()), "9999")
}
