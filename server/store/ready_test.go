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

// The view that every tally reads has every column of the table behind it.
func TestCountedTakesHaveEveryColumn(t *testing.T) {
	s := storetest.Open(t)
	columns := func(table string) (out []string) {
		rows, err := s.SQL().QueryContext(
			t.Context(), "SELECT column_name FROM information_schema.columns WHERE table_name = $1 ORDER BY 1", table,
		)
		require.NoError(t, err)
		defer rows.Close() //nolint:errcheck // read whole
		for rows.Next() {
			var name string
			require.NoError(t, rows.Scan(&name))
			out = append(out, name)
		}
		return out
	}
	assert.Equal(t, columns("take"), columns("counted_take"))
}
