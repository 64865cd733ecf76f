package store_test

import (
	"encoding/json"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/progress"
	"earlychorus/core/verdict"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// textOf is a kept ribbon's words.
func textOf(t *testing.T, kept json.RawMessage) string {
	t.Helper()
	var drawing struct {
		Text json.RawMessage `json:"text"`
	}
	require.NoError(t, json.Unmarshal(kept, &drawing))
	return string(drawing.Text)
}

// toHear is what is to be heard of a class, by take.
func toHear(t *testing.T, s *store.Store, b storetest.Band) map[string]store.ToHear {
	t.Helper()
	rows, err := s.TakesToHear(
		t.Context(),
		b.Class.ID,
		b.Class.Day(time.Now()).AddDate(0, 0, -4),
		b.Class.Day(time.Now()),
	)
	require.NoError(t, err)
	out := map[string]store.ToHear{}
	for _, r := range rows {
		out[r.TakeID] = r
	}
	return out
}

const aDay = 24 * 60 // minutes

// Of each player and step the latest take is to be heard, with what is known
// around it.
func TestWhatIsToBeHeard(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "HEAR")
	second := b.AddStep(t, s, exercise.New("tuning-note", nil))
	b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, -20*aDay), Result: verdict.NotYet})
	b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, -1), Result: verdict.NotYet})
	cut := progress.Cut{From: 2, To: 6, At: "where it happened"}
	clean := b.Play(t, s, storetest.Played{
		Step:   b.Step,
		At:     at(b, 1),
		Result: verdict.Clean,
		Cut:    cut,
	})
	b.Play(t, s, storetest.Played{Step: second, At: at(b, -aDay), Result: verdict.Clean})
	slipped := b.Play(t, s, storetest.Played{Step: second, At: at(b, 2), Result: verdict.NotYet})
	b.Play(t, s, storetest.Played{
		Player: 1,
		Step:   b.Step,
		At:     at(b, -20*aDay),
		Result: verdict.NotYet,
	}) // too long ago
	b.Play(t, s, storetest.Played{Player: 1, Step: second, At: at(b, 3)}) // waits

	got := toHear(t, s, b)
	require.Len(t, got, 2)
	assert.True(t, got[clean].FirstClean)
	assert.Equal(t, cut, got[clean].Cut())
	assert.Equal(t, b.Class.Day(at(b, -20*aDay)), got[clean].PlayedFrom.UTC())
	assert.Nil(t, got[clean].LastHeard)
	assert.True(t, got[slipped].WasClean)
	assert.False(t, got[slipped].FirstClean)

	// Once heard, it is not to be heard again, and its player was heard.
	require.NoError(t, s.SaveListening(t.Context(), store.Listening{
		DirectorID: b.Director.ID,
		ClassID:    b.Class.ID,
		Day:        b.Class.Day(time.Now()),
		Minutes:    5,
		Excerpts:   []progress.Excerpt{},
	}))
	require.NoError(t, s.KeepPlace(t.Context(), store.Listening{
		DirectorID: b.Director.ID,
		ClassID:    b.Class.ID,
		Day:        b.Class.Day(time.Now()),
		Place:      1,
		SpentS:     12,
	}, clean, at(b, 30)))
	got = toHear(t, s, b)
	require.Len(t, got, 1)
	require.NotNil(t, got[slipped].LastHeard)
	assert.Equal(t, at(b, 30).UTC(), got[slipped].LastHeard.UTC())
	kept, err := s.ListeningOf(t.Context(), b.Director.ID, b.Class.ID, b.Class.Day(time.Now()))
	require.NoError(t, err)
	assert.Equal(t, [2]float64{1, 12}, [2]float64{float64(kept.Place), kept.SpentS})

	// Played again, it is new.
	again := b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, 40), Result: verdict.Clean})
	assert.Contains(t, toHear(t, s, b), again)
	assert.False(t, toHear(t, s, b)[again].FirstClean, "it was clean before")
}

// The first take of a step that is clean is no success after tries.
func TestCleanAtOnceIsNoFirstTime(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "ATONCE")
	take := b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, 0), Result: verdict.Clean})
	assert.False(t, toHear(t, s, b)[take].FirstClean)
}

// Of what a player told, pain comes before a question; what was seen, or is just
// tiredness, is no reason to listen.
func TestAFlagIsHeardWithItsPlayer(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "FLAGS")
	take := b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, 0), Result: verdict.Clean})
	raise := func(kind store.FlagKind, words string, minute int) string {
		id := uuid.NewString()
		require.NoError(t, s.RaiseFlag(t.Context(), store.Flag{
			ID:       id,
			PlayerID: b.Players[0].ID,
			StepID:   &b.Step.ID,
			Kind:     kind,
			Words:    words,
			RaisedAt: at(b, minute),
		}))
		return id
	}
	raise(store.Tired, "", 1)
	assert.Empty(t, toHear(t, s, b)[take].Flag)
	raise(store.Question, "Which thumb?", 2)
	assert.Equal(t, "Which thumb?", toHear(t, s, b)[take].FlagWords)
	hurts := raise(store.Hurts, "", 1)
	assert.Equal(t, string(store.Hurts), toHear(t, s, b)[take].Flag)
	require.NoError(t, s.SeeFlag(t.Context(), hurts, b.Class.ID, time.Now().UTC()))
	assert.Equal(t, string(store.Question), toHear(t, s, b)[take].Flag)
	assert.ErrorIs(
		t,
		s.SeeFlag(t.Context(), hurts, uuid.NewString(), time.Now().UTC()),
		store.ErrNotFound,
		"another class's",
	)
}

// A place is kept only of a listening that was begun.
func TestAPlaceNeedsAListening(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "PLACE")
	l := store.Listening{DirectorID: b.Director.ID, ClassID: b.Class.ID, Day: b.Class.Day(time.Now())}
	assert.ErrorIs(t, s.KeepPlace(t.Context(), l, "", time.Now()), store.ErrNotFound)
}

// The newest word on a take is read as it is kept; a second listening replaces it.
func TestTheNewestWordIsRead(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "WORDS")
	take := b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, 0), Result: verdict.NotYet})
	a, err := s.AnalysisOf(t.Context(), take)
	require.NoError(t, err)
	a.Version, a.Result, a.Verdict.Result, a.Measured.Start = 2, verdict.Clean, verdict.Clean, 1.5
	require.NoError(t, s.SaveAnalysis(t.Context(), a, nil, progress.Cut{}))
	got, err := s.JudgedOf(t.Context(), []string{take, uuid.NewString()})
	require.NoError(t, err)
	require.Len(t, got, 1)
	assert.InDelta(t, 1.5, got[take].Start, 1e-9)
	assert.Contains(t, string(got[take].Verdict), `"clean"`)
	assert.JSONEq(t, `"drawn"`, textOf(t, got[take].Ribbon))
	var notes int
	require.NoError(t, s.SQL().QueryRow("SELECT count(*) FROM take_note WHERE take_id = $1", take).Scan(&notes))
	assert.Zero(t, notes, "the notes are the new listening's")
}
