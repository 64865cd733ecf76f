package store_test

import (
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/verdict"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// What the database tallies is what counting the notes one by one comes to.
func TestTalliesAreTheNotesCounted(t *testing.T) {
	s := storetest.Open(t)
	b, other := storetest.NewBand(t, s, "TALLY"), storetest.NewBand(t, s, "ELSE")
	chance := rand.New(rand.NewPCG(1, 2))
	type key struct {
		player   string
		sounding int
	}
	want := map[key]store.NoteTally{}
	for n := range 40 {
		notes := make([]store.TakeNote, 1+chance.IntN(3))
		who, daysBack := chance.IntN(2), n%5
		for k := range notes {
			notes[k] = store.TakeNote{
				Sounding:   56 + chance.IntN(3),
				Good:       chance.IntN(2) == 0,
				Trusted:    chance.IntN(3) > 0,
				Centre:     float64(chance.IntN(60) - 30),
				Steadiness: float64(chance.IntN(20)),
				Held:       4,
			}
		}
		b.Play(t, s, storetest.Played{
			Player: who,
			Step:   b.Step,
			At:     at(b, n-daysBack*aDay),
			Result: verdict.Clean,
			Notes:  slices.Clone(notes),
		})
		if daysBack > 2 {
			continue // before the days that are looked at
		}
		for _, note := range notes {
			k := key{b.Players[who].ID, note.Sounding}
			tally := want[k]
			tally.PlayerID, tally.Sounding = k.player, k.sounding
			tally.Takes++
			if note.Good {
				tally.Good++
			}
			if note.Trusted {
				tally.Centres, tally.Steadiness = append(
					tally.Centres,
					note.Centre,
				), append(
					tally.Steadiness,
					note.Steadiness,
				)
			}
			want[k] = tally
		}
	}
	other.Play(t, s, storetest.Played{Step: other.Step, At: at(b, 0), Result: verdict.Clean})

	today := b.Class.Day(time.Now())
	got, err := s.SectionTallies(
		t.Context(),
		b.Class.ID,
		[]string{"clarinet", "trombone"},
		today.AddDate(0, 0, -2),
		today,
	)
	require.NoError(t, err)
	require.Len(t, got, len(want))
	for _, tally := range got {
		w := want[key{tally.PlayerID, tally.Sounding}]
		assert.Equal(t, [2]int{w.Takes, w.Good}, [2]int{tally.Takes, tally.Good})
		assert.ElementsMatch(t, w.Centres, tally.Centres)
		assert.ElementsMatch(t, w.Steadiness, tally.Steadiness)
	}
	clarinets, err := s.SectionTallies(t.Context(), b.Class.ID, []string{"clarinet"}, today.AddDate(0, 0, -2), today)
	require.NoError(t, err)
	for _, tally := range clarinets {
		assert.Equal(t, b.Players[0].ID, tally.PlayerID)
	}
	none, err := s.SectionTallies(t.Context(), uuid.NewString(), []string{"clarinet"}, today, today)
	require.NoError(t, err)
	assert.Empty(t, none)
}

// A player's notes come oldest first; those of the longest long tone are told apart.
func TestAPlayersNotesAndLongestTakes(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "OWN")
	longest := b.AddStep(t, s, exercise.New(exercise.KindLongToneLongest, map[string]any{"cap_s": 10}))
	hold := b.Play(t, s, storetest.Played{
		Step:   longest,
		At:     at(b, 1),
		Result: verdict.Nearly,
		Notes:  []store.TakeNote{{Sounding: 58, Held: 9.5}},
	})
	tuned := b.Play(t, s, storetest.Played{
		Step:   longest,
		At:     at(b, 2),
		Result: verdict.NotYet,
		Notes:  []store.TakeNote{{Sounding: 58, Held: 12}},
	})
	b.Play(t, s, storetest.Played{Step: b.Step, At: at(b, -aDay), Result: verdict.Clean})
	b.Play(t, s, storetest.Played{
		Player: 1,
		Step:   longest,
		At:     at(b, 3),
		Result: verdict.Clean,
	})

	today := b.Class.Day(time.Now())
	notes, err := s.PlayerNotes(t.Context(), b.Players[0].ID, today.AddDate(0, 0, -7), today)
	require.NoError(t, err)
	require.Len(t, notes, 3)
	assert.True(t, slices.IsSortedFunc(notes, func(x, y store.TakeNote) int { return x.Day.Compare(y.Day) }))
	ids, err := s.LongestTakes(t.Context(), b.Players[0], today.AddDate(0, 0, -7), today)
	require.NoError(t, err)
	assert.Equal(t, map[string]bool{hold: true, tuned: true}, ids)
	now, err := s.Standing(t.Context(), b.Players[0])
	require.NoError(t, err)
	assert.InDelta(t, 9.5, now.Best, 1e-6, "one that is not yet right is no best")
	now, err = s.Standing(t.Context(), b.Players[1])
	require.NoError(t, err)
	assert.InDelta(t, 4, now.Best, 1e-6)
	all, err := s.StandingsOf(t.Context(), b.Class, b.Players)
	require.NoError(t, err)
	assert.Zero(t, all[0].Best, "no list asks for a year of notes")

	days, err := s.DaysPlayed(t.Context(), b.Players[0].ID, today.AddDate(0, 0, -7), today)
	require.NoError(t, err)
	require.Len(t, days, 2)
	assert.True(t, days[0].Before(days[1]))
}

// Progress goes out note by note, oldest first, with the director's latest word,
// and stops when it is told to.
func TestProgressIsVisitedInOrder(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "OUTWARD")
	first := b.Play(t, s, storetest.Played{
		Step:   b.Step,
		At:     at(b, -aDay),
		Result: verdict.NotYet,
		Notes:  []store.TakeNote{{Sounding: 58}, {Sounding: 60}},
	})
	second := b.Play(t, s, storetest.Played{
		Player: 1,
		Step:   b.Step,
		At:     at(b, 0),
		Result: verdict.Clean,
	})
	overrule(t, s, b, first, verdict.Nearly, at(b, 1))
	var seen []store.Progress
	require.NoError(t, s.EachProgress(t.Context(), b.Class.ID, func(p store.Progress) error {
		seen = append(seen, p)
		return nil
	}))
	require.Len(t, seen, 3)
	assert.Equal(t, []string{first, first, second}, []string{seen[0].TakeID, seen[1].TakeID, seen[2].TakeID})
	assert.Equal(t, []int{0, 1, 0}, []int{seen[0].Number, seen[1].Number, seen[2].Number})
	assert.Equal(t, "nearly", seen[0].Word)
	assert.Equal(t, "not-yet", seen[0].Result)
	assert.Empty(t, seen[2].Word)
	stop := assert.AnError
	assert.ErrorIs(t, s.EachProgress(t.Context(), b.Class.ID, func(store.Progress) error { return stop }), stop)
}
