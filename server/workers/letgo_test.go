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
	for _, id := range []string{old, young} {
		require.NoError(t, kept.Put(t.Context(), id, audio.Mono{Rate: 16000, Samples: make([]float64, 1600)}))
	}
	_, err = s.SQL().Exec("UPDATE take SET received_at = now() - interval '400 days' WHERE id = $1", old)
	require.NoError(t, err)

	analyze := &workers.AnalyzeTake{Store: s, Recordings: kept, Now: time.Now}
	pool, err := workers.NewPool(s.SQL(), "let-go", workers.Jobs{
		Analyze: analyze,
		LetGo:   &workers.LetGo{Store: s, Recordings: kept, Now: time.Now},
		Again:   &workers.JudgeAgain{Analyze: analyze, Store: s, Now: time.Now},
	})
	require.NoError(t, err)
	require.NoError(t, pool.Start(context.Background()))
	t.Cleanup(func() { require.NoError(t, pool.Stop(context.Background())) })
	assert.Eventually(t, func() bool {
		taken, err := s.Take(t.Context(), old)
		return err == nil && taken.SoundGoneAt != nil
	}, 20*time.Second, 50*time.Millisecond)
	_, missing, _ := kept.File(t.Context(), old)
	assert.True(t, missing)
	_, missing, _ = kept.File(t.Context(), young)
	assert.False(t, missing)
	taken, err := s.Take(t.Context(), old)
	require.NoError(t, err)
	assert.Equal(t, verdict.Clean, taken.Result)
}
