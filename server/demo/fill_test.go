package demo_test

import (
	"context"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/app"
	"earlychorus/server/classcode"
	"earlychorus/server/demo"
	"earlychorus/server/recordings"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// seeder is one over a server that listens, for one clarinet of the class: the
// whole takes minutes.
func seeder(t *testing.T) (demo.Seeder, *store.Store, *atomic.Int64) {
	t.Helper()
	s := storetest.Open(t)
	kept, err := recordings.InFolder(t.TempDir())
	require.NoError(t, err)
	parts := app.Parts{Store: s, Recordings: kept, Now: time.Now}
	web, err := app.Serve(parts)
	require.NoError(t, err)
	work, err := app.Work(parts, "demo")
	require.NoError(t, err)
	t.Cleanup(func() {
		web.Stop()
		require.NoError(t, work.Stop(context.Background()))
	})
	done := &atomic.Int64{}
	const maro = 5 // cracks, and was spoken to
	return demo.Seeder{
		Store:  s,
		Intake: web.Intake,
		Now:    time.Now,
		Only:   []int{maro},
		Progress: func(now, of int, _ string) {
			assert.LessOrEqual(t, now, of)
			done.Store(int64(now))
		},
	}, s, done
}

func count(t *testing.T, s *store.Store, query string) (n int) {
	t.Helper()
	require.NoError(t, s.SQL().QueryRow("SELECT count(*) FROM "+query).Scan(&n))
	return n
}

// The demo's class is there, its takes were listened to, its weeks lie behind it;
// a filling that is cut short goes on where it stopped, and a second one adds
// nothing.
func TestTheDemoFillsAndGoesOn(t *testing.T) {
	s, kept, _ := seeder(t)
	here, err := s.Begin(t.Context())
	require.NoError(t, err)
	require.True(t, here)
	assert.Equal(t, 32, count(t, kept, "player"))
	assert.Equal(t, 2, count(t, kept, "director"))
	pass, err := kept.PassByCode(t.Context(), classcode.Key(demo.SubstitutesCode))
	require.NoError(t, err, "the substitute comes in by the words that are printed")
	assert.Equal(t, store.RoleSubstitute, pass.Role)
	assert.Equal(t, 1, count(t, kept, "step WHERE test IS NOT NULL"))
	assert.Equal(t, 3, count(t, kept, "model"))
	assert.Equal(t, 2, count(t, kept, "flag WHERE seen_at IS NULL"))
	assert.Zero(t, count(t, kept, "class WHERE known = '{}'"))

	cut, stop := context.WithCancel(t.Context())
	tell := s.Progress
	s.Progress = func(now, of int, what string) {
		if tell(now, of, what); now >= 5 {
			stop()
		}
	}
	require.Error(t, s.Fill(cut), "it was cut short")
	s.Progress = tell
	half := count(t, kept, "take")
	assert.Positive(t, half)

	here, err = s.Begin(t.Context())
	require.NoError(t, err)
	require.True(t, here, "the next start finds its own demo")
	require.NoError(t, s.Fill(t.Context()))
	takes := count(t, kept, "take")
	assert.Greater(t, takes, half)
	assert.Equal(t, takes, count(t, kept, "take WHERE result <> ''"), "all of it was listened to")
	assert.Zero(t, count(t, kept, "take WHERE failure <> ''"))
	assert.Zero(
		t,
		count(t, kept, "take WHERE received_at > now() + interval '1 minute'"),
		"nothing comes from the future",
	)
	comments := count(t, kept, "comment")
	assert.Greater(t, comments, 1, "what the director said of the one who plays")
	assert.Zero(t, count(t, kept, "comment c JOIN take t ON t.id = c.take_id WHERE t.result = 'clean'"))
	assert.GreaterOrEqual(t, count(t, kept, "(SELECT DISTINCT date_trunc('week', day) FROM take) weeks"), 5)

	require.NoError(t, s.Fill(t.Context()))
	assert.Equal(t, takes, count(t, kept, "take"))
	assert.Equal(t, comments, count(t, kept, "comment"))

	var player string
	require.NoError(t, kept.SQL().QueryRow("SELECT DISTINCT player_id FROM take").Scan(&player))
	p, err := kept.Player(t.Context(), player)
	require.NoError(t, err)
	assert.Equal(t, "Maro Quenby", p.FullName())
	ladders, err := kept.LaddersOf(t.Context(), p)
	require.NoError(t, err)
	assert.Greater(t, ladders["clarinet-break"].Rung, 1, "weeks lead up a ladder")
}

// Another school's database is left alone.
func TestTheDemoKeepsOutOfOtherSchools(t *testing.T) {
	s, kept, _ := seeder(t)
	storetest.NewBand(t, kept, "OURS")
	here, err := s.Begin(t.Context())
	require.NoError(t, err)
	assert.False(t, here)
	assert.Equal(t, 2, count(t, kept, "player"))
}
