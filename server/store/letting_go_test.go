package store_test

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ladder"
	"earlychorus/core/verdict"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// Each class's recordings go when its own time is over, the oldest first, each once.
func TestRecordingsGoWhenTheirClassSays(t *testing.T) {
	s := storetest.Open(t)
	short, long := storetest.NewBand(t, s, "SHORT"), storetest.NewBand(t, s, "LONG")
	for band, days := range map[*storetest.Band]int{&short: 7, &long: 30} {
		_, err := s.SQL().ExecContext(t.Context(), "UPDATE class SET keep_days = $1 WHERE id = $2", days, band.Class.ID)
		require.NoError(t, err)
	}
	oldest := short.Play(t, s, storetest.Played{Step: short.Step, At: at(short, -12*aDay), Result: verdict.Clean})
	old := short.Play(t, s, storetest.Played{Step: short.Step, At: at(short, -8*aDay), Result: verdict.Clean})
	short.Play(t, s, storetest.Played{Step: short.Step, At: at(short, -6*aDay), Result: verdict.Clean})
	long.Play(t, s, storetest.Played{Step: long.Step, At: at(long, -12*aDay), Result: verdict.Clean})

	now := at(short, 0)
	one, err := s.SoundsToLetGo(t.Context(), now, 1)
	require.NoError(t, err)
	assert.Equal(t, []string{oldest}, numbers(one))
	all, err := s.SoundsToLetGo(t.Context(), now, 10)
	require.NoError(t, err)
	assert.Equal(t, []string{oldest, old}, numbers(all))
	require.NoError(t, s.SoundGone(t.Context(), oldest, now.UTC()))
	left, err := s.SoundsToLetGo(t.Context(), now, 10)
	require.NoError(t, err)
	assert.Equal(t, []string{old}, numbers(left))
	a, err := s.AnalysisOf(t.Context(), oldest)
	require.NoError(t, err)
	assert.Equal(t, verdict.Clean, a.Result, "what was measured stays")
}

func numbers(kept []store.Kept) (ids []string) {
	for _, k := range kept {
		ids = append(ids, k.ID)
	}
	return ids
}

// Of a forgotten player nothing is left in any table; of others everything is.
func TestNothingIsLeftOfAForgottenPlayer(t *testing.T) {
	s := storetest.Open(t)
	b, other := storetest.NewBand(t, s, "GONE"), storetest.NewBand(t, s, "ELSE")
	ada, bo := b.Players[0].ID, b.Players[1].ID
	lives := func(n int) string {
		take := b.Play(t, s, storetest.Played{
			Player: n,
			Step:   b.Step,
			At:     at(b, n),
			Result: verdict.NotYet,
		})
		player := b.Players[n].ID
		overrule(t, s, b, take, verdict.Clean, at(b, 5))
		comment(t, s, b, take, "heard")
		require.NoError(t, s.AddComment(t.Context(), store.Comment{
			ID:         uuid.NewString(),
			TakeID:     take,
			DirectorID: b.Director.ID,
			Body:       "A voice note of 3 s",
			WrittenAt:  at(b, 6).UTC(),
			Kind:       "voice",
			Sound:      "voices/" + player,
		}))
		require.NoError(t, s.RaiseFlag(t.Context(), store.Flag{
			ID:       uuid.NewString(),
			PlayerID: player,
			Kind:     store.Tired,
			RaisedAt: at(b, 7),
		}))
		require.NoError(t, s.AddLadderEntry(t.Context(), store.LadderEntry{
			PlayerID: player,
			Ladder:   theBreak,
			What:     ladder.Placed,
			Day:      at(b, 0),
			Rung:     2,
			At:       at(b, 8),
		}))
		require.NoError(t, s.AddException(t.Context(), store.Exception{
			ID:       uuid.NewString(),
			PlayerID: player,
			FirstDay: at(b, 0),
			LastDay:  at(b, 0),
		}))
		require.NoError(t, s.SaveTick(t.Context(), store.Tick{
			PlayerID:    player,
			StepID:      b.Step.ID,
			StepVersion: 1,
			Day:         at(b, 0),
			Done:        []bool{true},
			Result:      verdict.Clean,
			TickedAt:    at(b, 9),
		}))
		return take
	}
	adas, bos := lives(0), lives(1)
	_, _, err := s.ForgetPlayer(t.Context(), other.Class.ID, ada)
	assert.ErrorIs(t, err, store.ErrNotFound, "another class's")
	gone, what, err := s.ForgetPlayer(t.Context(), b.Class.ID, ada)
	require.NoError(t, err)
	assert.Len(t, gone, 2, "the sounds of her take and of what was said of it")
	assert.Contains(t, gone[0]+gone[1], adas)
	assert.Equal(t, 1, what.Takes)
	assert.Equal(t, 1, what.VoiceNotes)

	// Whatever table names a player or a take, also one that is made tomorrow.
	rows, err := s.SQL().QueryContext(
		t.Context(),
		`SELECT c.table_name, c.column_name FROM information_schema.columns c
			JOIN information_schema.tables t USING (table_schema, table_name)
		WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE'
			AND c.column_name IN ('player_id', 'take_id') AND c.data_type = 'uuid'`,
	)
	require.NoError(t, err)
	type place struct{ table, column string }
	var places []place
	for rows.Next() {
		var p place
		require.NoError(t, rows.Scan(&p.table, &p.column))
		places = append(places, p)
	}
	require.NoError(t, rows.Err())
	assert.Greater(t, len(places), 8)
	kept := 0
	for _, p := range places {
		left := func(who string) (n int) {
			require.NoError(
				t,
				s.SQL().
					QueryRowContext(t.Context(), "SELECT count(*) FROM "+p.table+" WHERE "+p.column+" = $1", who).
					Scan(&n),
			)
			return n
		}
		who, others := ada, bo
		if p.column == "take_id" {
			who, others = adas, bos
		}
		assert.Zero(t, left(who), "%s.%s", p.table, p.column)
		kept += left(others)
	}
	assert.Greater(t, kept, 8, "the other player's is all there")
}
