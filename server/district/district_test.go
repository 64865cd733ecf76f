package district_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/district"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// A small district is as the large one: every player has played every step of
// every day, the newest week can be looked into, and the indexes are back.
func TestASmallDistrict(t *testing.T) {
	s := storetest.Open(t)
	size := district.Size{
		Classes:   2,
		Players:   15,
		Weeks:     2,
		KeptWeeks: 1,
	}
	quiet := func(string, ...any) {}
	require.NoError(t, district.Seed(t.Context(), s.DSN(), size, time.Now(), quiet))
	assert.ErrorContains(t, district.Seed(t.Context(), s.DSN(), size, time.Now(), quiet), "must be empty")

	count := func(query string) (n int) {
		require.NoError(t, s.SQL().QueryRow(query).Scan(&n))
		return n
	}
	assert.Equal(t, size.Takes(), count("SELECT count(*) FROM take"))
	assert.Equal(t, size.Takes(), count("SELECT count(*) FROM take_note"))
	assert.Equal(t, size.Takes()/2, count("SELECT count(*) FROM analysis"))
	assert.Zero(
		t,
		count(
			"SELECT count(*) FROM take t LEFT JOIN score s ON s.id = t.score_id LEFT JOIN player p ON p.id = "+
				"t.player_id LEFT JOIN step_version v ON v.step_id = t.step_id WHERE s.id IS NULL OR p.id IS NULL "+
				"OR v.step_id IS NULL",
		),
		"what is not checked while it is written is right all the same",
	)
	assert.Equal(
		t,
		3,
		count(
			"SELECT count(*) FROM pg_indexes WHERE indexname IN ('take_by_player_and_day', 'take_by_step_and_day', "+
				"'take_note_by_player')",
		),
	)

	p, err := s.Player(t.Context(), size.PlayerID(1, 2))
	require.NoError(t, err)
	assert.Equal(t, "clarinet", p.Instrument)
	assert.Equal(t, district.ClassID(1), p.ClassID)
	monday := store.Monday(time.Now().UTC().Truncate(24 * time.Hour))
	notes, err := s.PlayerNotes(t.Context(), p.ID, monday.AddDate(0, 0, -7), monday.AddDate(0, 0, 6))
	require.NoError(t, err)
	assert.Len(t, notes, 2*5*5)
	takes, err := s.TakesOfPlayerOn(t.Context(), p.ID, monday)
	require.NoError(t, err)
	require.Len(t, takes, 5)
	one, err := s.Take(t.Context(), takes[0].ID)
	require.NoError(t, err)
	assert.Equal(t, "clarinet", one.Score.Instrument, "its score can be read")
	_, err = s.AnalysisOf(t.Context(), one.ID)
	assert.NoError(t, err)
}
