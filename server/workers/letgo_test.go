package workers_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/verdict"
	"earlychorus/server/recordings"
	"earlychorus/server/store/storetest"
	"earlychorus/server/workers"
)

// The queue itself asks for it, without anybody's doing: a recording whose time is
// up goes, a young one stays, and so does what was measured.
func TestTheQueueLetsOldRecordingsGo(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "LETGO")
	kept, err := recordings.InFolder(t.TempDir())
	require.NoError(t, err)
	old := b.Play(t, s, storetest.Played{Step: b.Step, At: time.Now(), Result: verdict.Clean})
	young := b.Play(t, s, storetest.Played{Step: b.Step, At: time.Now(), Result: verdict.Clean})
	sounds := map[string]string{}
	for _, id := range []string{old, young} {
		name, sum, err := kept.Put(
			t.Context(), recordings.OfTake, id, audio.Mono{Rate: 16000, Samples: make([]float64, 1600)},
		)
		require.NoError(t, err)
		sounds[id] = name
		taken, err := s.Take(t.Context(), id)
		require.NoError(t, err)
		_, err = s.SetSound(t.Context(), id, taken.Sound, name, sum)
		require.NoError(t, err)
	}
	_, err = s.SQL().Exec("UPDATE take SET received_at = now() - interval '400 days' WHERE id = $1", old)
	require.NoError(t, err)

	// Nothing is judged again meanwhile: these takes were never played.
	require.NoError(t, s.SetJudgedAgain(t.Context(), workers.Version, time.Now()))
	pool, err := workers.NewPool(s.SQL(), "let-go", allJobs(t, s, kept))
	require.NoError(t, err)
	require.NoError(t, pool.Start(context.Background()))
	t.Cleanup(func() { require.NoError(t, pool.Stop(context.Background())) })
	assert.Eventually(t, func() bool {
		taken, err := s.Take(t.Context(), old)
		return err == nil && taken.SoundGoneAt != nil
	}, time.Minute, 50*time.Millisecond)
	_, err = kept.Get(t.Context(), sounds[old])
	require.ErrorIs(t, err, recordings.ErrMissing)
	_, err = kept.Get(t.Context(), sounds[young])
	require.NoError(t, err)
	taken, err := s.Take(t.Context(), old)
	require.NoError(t, err)
	assert.Equal(t, verdict.Clean, taken.Result)
}
