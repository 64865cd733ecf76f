package workers_test

import (
	"testing"
	"time"

	"github.com/riverqueue/river"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/backup"
	"earlychorus/server/jobs"
	"earlychorus/server/recordings"
	"earlychorus/server/store/storetest"
	"earlychorus/server/workers"
)

// A night's backup is one that can be brought back, is written down, and lets the oldest go.
func TestANightsBackup(t *testing.T) {
	s := storetest.Open(t)
	storetest.NewBand(t, s, "NIGHT")
	from, err := recordings.InFolder(t.TempDir())
	require.NoError(t, err)
	to, err := recordings.InFolder(t.TempDir())
	require.NoError(t, err)
	now := time.Date(2026, 11, 28, 3, 0, 0, 0, time.UTC)
	w := &workers.Backup{
		Store:      s,
		Recordings: from,
		To:         to,
		Keep:       2,
		Now:        func() time.Time { return now },
	}
	for range 3 {
		require.NoError(t, w.Work(t.Context(), &river.Job[jobs.Backup]{}))
		now = now.AddDate(0, 0, 1)
	}
	kept, err := backup.Backups(t.Context(), to)
	require.NoError(t, err)
	assert.Equal(t, []string{"2026-11-29T030000Z", "2026-11-30T030000Z"}, kept)
	noted, err := s.LastBackups(t.Context(), 10)
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(noted), 3)
	assert.Equal(t, "2026-11-30T030000Z", noted[0].Name)
	assert.Empty(t, noted[0].Problem)

	require.NoError(t, to.Close())
	assert.Error(t, w.Work(t.Context(), &river.Job[jobs.Backup]{}))
	noted, err = s.LastBackups(t.Context(), 1)
	require.NoError(t, err)
	assert.NotEmpty(t, noted[0].Problem, "an administrator sees why")
}
