package board_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/measure"
	"earlychorus/core/verdict"
	"earlychorus/server/board"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

func today(t *testing.T, s *store.Store, b storetest.Band) board.Today {
	t.Helper()
	day := b.Class.Day(time.Now())
	page, err := board.Of(t.Context(), s, b.Class, day, day)
	require.NoError(t, err)
	return page
}

// row is a player's cells.
func row(t *testing.T, page board.Today, player string) []board.BoardCell {
	t.Helper()
	for _, s := range page.Sections {
		for _, p := range s.Players {
			if p.ID == player {
				return p.Cells
			}
		}
	}
	require.Fail(t, "the player is not on the board")
	return nil
}

// Each player's own rung is shown, also of those who have not played today: a placed
// player's notes, and those of classmates on other rungs.
func TestEachPlayerReadsTheOwnRung(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "RUNGS")
	b.Join(t, s, "clarinet", 2)
	b.AddStep(t, s, exercise.New("ladder", map[string]any{"ladder": "clarinet-break", "tempo_bpm": 120}))
	rungs := map[string]int{b.Players[0].ID: 4, b.Players[2].ID: 7, b.Players[3].ID: 1}
	for player, rung := range rungs {
		require.NoError(t, s.AddLadderEntry(t.Context(), store.LadderEntry{
			PlayerID: player,
			Ladder:   "clarinet-break",
			What:     ladder.Placed,
			Day:      b.Class.Day(time.Now()),
			Rung:     rung,
			At:       time.Now(),
		}))
	}
	page := today(t, s, b)
	clarinet, err := instrument.Get("clarinet")
	require.NoError(t, err)
	step := exercise.New("ladder", map[string]any{"ladder": "clarinet-break"})
	seen := map[string]bool{}
	for player, rung := range rungs {
		who := exercise.Player{Instrument: clarinet, Stage: 2, Rungs: map[string]int{"clarinet-break": rung}}
		asked, err := step.Score(who, exercise.StandardConventions())
		require.NoError(t, err)
		cell := row(t, page, player)[1]
		assert.Equal(t, board.Missing, cell.State)
		assert.Equal(t, asked.Reads(), cell.Written, "rung %d", rung)
		seen[cell.Written] = true
	}
	assert.Len(t, seen, 3, "three players, three rungs")
}

// A cell says how things are: played, waiting, overruled, ticked, excused, not asked.
func TestACellSaysHowThingsAre(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "CELLS")
	b.Join(t, s, "clarinet", 3)
	tick := b.AddStep(t, s, exercise.New("set-up", nil))
	b.AddStep(t, s, exercise.New("buzz-at-once", nil))
	now := time.Now()
	day := b.Class.Day(now)
	at := day.Add(15 * time.Hour)
	b.Play(t, s, storetest.Played{
		Step:   b.Step,
		At:     at,
		Result: verdict.NotYet,
		Cause:  measure.CauseGap,
	})
	b.Play(t, s, storetest.Played{Player: 2, Step: b.Step, At: at})
	overruled := b.Play(t, s, storetest.Played{
		Player: 3,
		Step:   b.Step,
		At:     at,
		Result: verdict.NotYet,
	})
	require.NoError(t, s.Overrule(t.Context(), store.Review{
		ID:         store.NewID(),
		TakeID:     overruled,
		DirectorID: b.Director.ID,
		Result:     verdict.Clean,
		ReviewedAt: now,
	}))
	require.NoError(t, s.SaveTick(t.Context(), store.Tick{
		PlayerID:    b.Players[0].ID,
		StepID:      tick.ID,
		StepVersion: 1,
		Day:         day,
		Done:        []bool{true},
		Result:      verdict.Clean,
		Short:       "all done",
		TickedAt:    now,
	}))
	require.NoError(t, s.AddException(t.Context(), store.Exception{
		ID:       store.NewID(),
		PlayerID: b.Players[4].ID,
		FirstDay: day,
		LastDay:  day,
	}))

	page := today(t, s, b)
	require.Len(t, page.Steps, 3)
	first := func(player int) board.BoardCell { return row(t, page, b.Players[player].ID)[0] }
	assert.Equal(t, board.Done, first(0).State)
	assert.Equal(t, verdict.NotYet, first(0).Result)
	assert.NotEmpty(t, first(0).Written)
	assert.Equal(t, board.Waiting, first(2).State)
	assert.Equal(t, verdict.Clean, first(3).Result, "the director's word")
	assert.True(t, first(3).Overruled)
	assert.Equal(t, board.Excused, first(4).State)
	assert.Equal(t, board.Missing, first(1).State)
	assert.Equal(t, "all done", row(t, page, b.Players[0].ID)[1].Deciding)
	assert.Equal(t, board.NotAsked, row(t, page, b.Players[0].ID)[2].State, "a clarinet does not buzz")
	assert.Equal(
		t,
		map[string]int{"not-yet": 1, "clean": 1, "waiting": 1, "missing": 1, "excused": 1},
		page.Steps[0].Results,
	)
}
