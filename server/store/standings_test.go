package store_test

import (
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/verdict"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

const theBreak = "clarinet-break"

// stands is what the log says, worked out with nothing kept.
func stands(t *testing.T, s *store.Store, playerID, key string) ladder.State {
	t.Helper()
	p, err := s.Player(t.Context(), playerID)
	require.NoError(t, err)
	i, err := instrument.Get(p.Instrument)
	require.NoError(t, err)
	l, _ := exercise.LadderOf(key)
	log, err := s.LadderLog(t.Context(), playerID, key)
	require.NoError(t, err)
	return ladder.Standard().Replay(len(l.Rungs(i)), log)
}

func tried(playerID string, day time.Time, n int, result verdict.Result) store.LadderEntry {
	return store.LadderEntry{
		PlayerID: playerID,
		Ladder:   theBreak,
		What:     ladder.Tried,
		Day:      day,
		Rung:     1,
		Result:   result,
		Seconds:  8,
		At:       day.Add(time.Duration(n) * time.Minute),
	}
}

// What is kept of a ladder is what its log says: after every line, after one that
// comes late, and for another instrument.
func TestAStandingIsAlwaysTheLogs(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "KEPT")
	player := b.Players[0].ID
	day := time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)
	agree := func() ladder.State {
		t.Helper()
		want := stands(t, s, player, theBreak)
		for range 2 { // worked out, then as it was kept
			mine, err := s.LaddersOf(t.Context(), b.Players[0])
			require.NoError(t, err)
			assert.Equal(t, want, mine[theBreak])
			all, err := s.LaddersOfClass(t.Context(), b.Class)
			require.NoError(t, err)
			assert.Equal(t, want, all[player][theBreak])
		}
		return want
	}
	none, err := s.LaddersOf(t.Context(), b.Players[0])
	require.NoError(t, err)
	assert.Empty(t, none, "a ladder that was never tried is not there")

	for n := range 3 {
		require.NoError(t, s.AddLadderEntry(t.Context(), tried(player, day, 10+n, verdict.Clean)))
		agree()
	}
	assert.Equal(t, 2, agree().Rung)

	// A device without a network hands in what was played in between.
	require.NoError(t, s.AddLadderEntry(t.Context(), tried(player, day, 11, verdict.NotYet)))
	assert.Equal(t, 1, agree().Rung, "two clean in a row only")

	_, err = s.SQL().ExecContext(t.Context(), "UPDATE player SET instrument = 'trombone' WHERE id = $1", player)
	require.NoError(t, err)
	agree()
}

// A line that comes while a standing is worked out is not forgotten.
func TestAStandingIsNotKeptOverANewerLine(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "RACE")
	player := b.Players[0].ID
	day := time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)
	var all sync.WaitGroup
	for n := range 8 {
		all.Go(func() {
			e := tried(player, day, n, []verdict.Result{verdict.Clean, verdict.Nearly}[n%2])
			id := uuid.NewString()
			e.What, e.ActID = ladder.Placed, &id
			e.Rung = 1 + n%3
			assert.NoError(t, s.AddLadderEntry(t.Context(), e))
		})
		all.Go(func() {
			_, err := s.LaddersOf(t.Context(), b.Players[0])
			assert.NoError(t, err)
		})
	}
	all.Wait()
	mine, err := s.LaddersOf(t.Context(), b.Players[0])
	require.NoError(t, err)
	assert.Equal(t, stands(t, s, player, theBreak), mine[theBreak])
}

// A line of the same take, or the same act, is added once.
func TestALineIsAddedOnce(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "ONCE")
	act := uuid.NewString()
	day := time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)
	for range 3 {
		require.NoError(t, s.AddLadderEntry(t.Context(), store.LadderEntry{
			PlayerID: b.Players[0].ID,
			Ladder:   theBreak,
			What:     ladder.SteppedBack,
			Day:      day,
			At:       day,
			ActID:    &act,
		}))
	}
	mine, err := s.LaddersOf(t.Context(), b.Players[0])
	require.NoError(t, err)
	assert.Equal(t, 1, mine[theBreak].Backs)
	log, err := s.LadderLog(t.Context(), b.Players[0].ID, theBreak)
	require.NoError(t, err)
	assert.Len(t, log, 1)
}
