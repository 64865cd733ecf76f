package store_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/measure"
	"earlychorus/core/verdict"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// at is a moment of today, in the afternoon, minutes after four.
func at(b storetest.Band, minutes int) time.Time {
	return b.Class.Day(time.Now()).Add(16*time.Hour + time.Duration(minutes)*time.Minute)
}

func overrule(t *testing.T, s *store.Store, b storetest.Band, take string, result verdict.Result, when time.Time) {
	t.Helper()
	require.NoError(t, s.Overrule(t.Context(), store.Review{
		ID:         uuid.NewString(),
		TakeID:     take,
		DirectorID: b.Director.ID,
		Result:     result,
		ReviewedAt: when,
	}))
}

func comment(t *testing.T, s *store.Store, b storetest.Band, take, words string) {
	t.Helper()
	require.NoError(t, s.AddComment(t.Context(), store.Comment{
		ID:         uuid.NewString(),
		TakeID:     take,
		DirectorID: b.Director.ID,
		Body:       words,
		WrittenAt:  time.Now().UTC(),
		Kind:       "comment",
	}))
}

// A cell is the latest take of a player and step, with the latest word on it and
// what was said of it alone.
func TestTheBoardShowsTheLatest(t *testing.T) {
	s := storetest.Open(t)
	b, other := storetest.NewBand(t, s, "BOARD"), storetest.NewBand(t, s, "ELSE")
	first := b.Play(t, s, storetest.Played{
		Step:   b.Step,
		At:     at(b, 0),
		Result: verdict.NotYet,
		Cause:  measure.CauseGap,
	})
	comment(t, s, b, first, "of the first")
	latest := b.Play(t, s, storetest.Played{
		Step:   b.Step,
		At:     at(b, 5),
		Result: verdict.Nearly,
		Cause:  measure.CauseSteadiness,
	})
	comment(t, s, b, latest, "one")
	comment(t, s, b, latest, "two")
	overrule(t, s, b, latest, verdict.NotYet, at(b, 6))
	overrule(t, s, b, latest, verdict.Clean, at(b, 7))
	b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, -24*60), Result: verdict.Clean}) // yesterday's
	waiting := b.Play(t, s, storetest.Played{Player: 1, Step: b.Step, At: at(b, 1)})
	other.Play(t, s, storetest.Played{Step: other.Step, At: at(b, 9), Result: verdict.Clean})

	cells, err := s.Board(t.Context(), []string{b.Step.ID}, b.Class.Day(time.Now()))
	require.NoError(t, err)
	require.Len(t, cells, 2)
	of := map[string]store.Cell{}
	for _, c := range cells {
		of[c.PlayerID] = c
	}
	ada := of[b.Players[0].ID]
	assert.Equal(t, latest, ada.TakeID)
	assert.Equal(t, 2, ada.Takes)
	assert.Equal(t, 2, ada.Comments)
	assert.Equal(t, verdict.Nearly, ada.Result, "what was measured stays")
	assert.Equal(t, verdict.Clean, ada.Overruled, "the latest word")
	assert.Equal(t, measure.CauseSteadiness, ada.Cause)
	assert.Equal(t, "C4", ada.Written, "as the clarinet reads it")
	assert.JSONEq(t, `"drawn"`, textOf(t, ada.Ribbon))
	bo := of[b.Players[1].ID]
	assert.Equal(t, waiting, bo.TakeID)
	assert.Empty(t, bo.Result)
	assert.Empty(t, bo.Ribbon)
	assert.Equal(t, "B♭2", bo.Written, "as the trombone reads it")

	none, err := s.Board(t.Context(), []string{b.Step.ID}, b.Class.Day(time.Now()).AddDate(0, 0, 1))
	require.NoError(t, err)
	assert.Empty(t, none)
}

// A word is taken back by whom it is of; then the one before stands.
func TestActsAreTakenBackByTheirOwn(t *testing.T) {
	s := storetest.Open(t)
	b, other := storetest.NewBand(t, s, "ACTS"), storetest.NewBand(t, s, "THEIRS")
	take := b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, 0), Result: verdict.NotYet})
	word := store.Review{
		ID:         uuid.NewString(),
		TakeID:     take,
		DirectorID: b.Director.ID,
		Result:     verdict.Clean,
		ReviewedAt: at(b, 2),
	}
	overrule(t, s, b, take, verdict.Nearly, at(b, 1))
	require.NoError(t, s.Overrule(t.Context(), word))
	require.NoError(t, s.Overrule(t.Context(), word), "sent twice")
	_, err := s.TakeBackAct(t.Context(), take, word.ID, other.Director.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	got, ok, err := s.ReviewOf(t.Context(), take)
	require.NoError(t, err)
	assert.True(t, ok)
	assert.Equal(t, verdict.Clean, got)
	_, err = s.TakeBackAct(t.Context(), take, word.ID, b.Director.ID)
	require.NoError(t, err)
	got, _, err = s.ReviewOf(t.Context(), take)
	require.NoError(t, err)
	assert.Equal(t, verdict.Nearly, got)
	_, err = s.TakeBackAct(t.Context(), take, word.ID, b.Director.ID)
	assert.ErrorIs(t, err, store.ErrNotFound, "it is gone")
	require.NoError(t, s.TakeBackReview(t.Context(), take))
	_, ok, err = s.ReviewOf(t.Context(), take)
	require.NoError(t, err)
	assert.False(t, ok)
}
