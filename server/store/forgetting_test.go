package store_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/store/storetest"
)

// Measures go when their class kept them long enough, with the take; a class that keeps them for
// ever keeps them.
func TestMeasuresAreKeptAsLongAsTheirClassWants(t *testing.T) {
	s := storetest.Open(t)
	b, forever := storetest.NewBand(t, s, "MEASURED"), storetest.NewBand(t, s, "FOREVER")
	old := b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, 0)})
	kept := forever.Play(t, s, storetest.Played{Step: forever.Step, At: at(forever, 0)})
	later := at(b, 0).AddDate(0, 0, 401)
	due, err := s.TakesToForget(t.Context(), later, 10)
	require.NoError(t, err)
	assert.Empty(t, due, "nobody asked for it")
	_, err = s.SQL().Exec("UPDATE class SET keep_measures_days = 400 WHERE id = $1", b.Class.ID)
	require.NoError(t, err)
	due, err = s.TakesToForget(t.Context(), at(b, 0).AddDate(0, 0, 399), 10)
	require.NoError(t, err)
	assert.Empty(t, due)
	due, err = s.TakesToForget(t.Context(), later, 10)
	require.NoError(t, err)
	require.Len(t, due, 1)
	assert.Equal(t, old, due[0].ID)
	require.NoError(t, s.ForgetTake(t.Context(), old, later))
	_, err = s.Take(t.Context(), old)
	assert.Error(t, err)
	_, err = s.Take(t.Context(), kept)
	assert.NoError(t, err)
}
