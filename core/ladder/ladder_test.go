package ladder_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/verdict"
)

// climb plays letters on the rung the player stands on: c clean, n nearly, x not
// yet, h outside on hard notes only, ? can't tell, b step back, | the next day.
func climb(s ladder.State, played string) (ladder.State, []ladder.Move, []ladder.Entry) {
	rules := ladder.Standard()
	day := 1
	var moves []ladder.Move
	var log []ladder.Entry
	for _, p := range played {
		e := ladder.Entry{
			What:    ladder.Tried,
			Day:     fmt.Sprintf("2026-03-%02d", day),
			Rung:    s.Rung,
			Seconds: 10,
		}
		switch p {
		case '|':
			day++
			continue
		case 'c':
			e.Result = verdict.Clean
		case 'n':
			e.Result = verdict.Nearly
		case 'x':
			e.Result = verdict.NotYet
		case 'h':
			e.Result, e.Hard = verdict.Nearly, true
		case '?':
			e.Result = verdict.CantTell
		case 'b':
			e.What = ladder.SteppedBack
		}
		var m ladder.Move
		s, m = rules.Next(s, e)
		moves, log = append(moves, m), append(log, e)
	}
	return s, moves, log
}

// Three clean in a row up, two fails back to the last clean rung (common
// practice, no published source).
func TestTheRules(t *testing.T) {
	for played, want := range map[string]struct {
		rung int
		last ladder.Move
	}{
		"cc":            {1, ladder.Stayed},
		"ccc":           {2, ladder.Up},
		"ccncc":         {1, ladder.Stayed}, // in a row means in a row
		"ccnccc":        {2, ladder.Up},
		"cc?c":          {2, ladder.Up}, // the recording's fault is nobody's
		"x":             {1, ladder.Stayed},
		"xx":            {1, ladder.Back}, // there is nothing below the first
		"cccx":          {2, ladder.Stayed},
		"cccxx":         {1, ladder.Back},
		"cccxnx":        {2, ladder.Stayed},
		"ccch":          {2, ladder.Stayed},
		"ccchh":         {1, ladder.Back}, // a hard note that does not come leads back too
		"cccxh":         {1, ladder.Back},
		"ccchnh":        {2, ladder.Stayed},
		"cccb":          {1, ladder.Back},
		"cccccc|cccccc": {4, ladder.Goal},
		"cccccc|ccc":    {4, ladder.Up},
	} {
		s, moves, _ := climb(ladder.Start(4), played)
		assert.Equal(t, want.rung, s.Rung, played)
		assert.Equal(t, want.last, moves[len(moves)-1], played)
	}
}

func TestTheDaysTriesAreCapped(t *testing.T) {
	s, moves, _ := climb(ladder.Start(9), "cnccnccnccnc"+"ccc")
	assert.Equal(t, 1, s.Rung)
	assert.Equal(t, ladder.OverCap, moves[12])
	assert.True(t, ladder.Standard().Capped(s, "2026-03-01"))
	assert.False(t, ladder.Standard().Capped(s, "2026-03-02"))
	s, _, _ = climb(ladder.Start(9), "cnccnccnccnc|cc")
	assert.Equal(t, 2, s.Rung, "the run goes on over night")

	long := ladder.Entry{
		What:    ladder.Tried,
		Day:     "d",
		Rung:    1,
		Result:  verdict.Nearly,
		Seconds: 150,
	}
	state := ladder.Standard().Replay(3, []ladder.Entry{long, long})
	assert.True(t, ladder.Standard().Capped(state, "d"), "five minutes")
}

func TestBackLeadsToTheLastCleanRung(t *testing.T) {
	// Put on rung 4 without having passed 2 and 3.
	s, _, _ := climb(ladder.Start(6), "ccc")
	s, _ = ladder.Standard().Next(s, ladder.Entry{What: ladder.Placed, Rung: 4})
	assert.Equal(t, 4, s.Rung)
	s, _, _ = climb(s, "xx")
	assert.Equal(t, 1, s.Rung)
	assert.True(t, s.Passed[0])
	assert.Equal(t, 1, s.Backs)
}

func TestWhoIsStuck(t *testing.T) {
	r := ladder.Standard()
	for played, stuck := range map[string]bool{
		"ccc": false, "cccn": false, "cccnnnn": true, "cccnnnc": false, "cccxx": true, "cccxx|ccc": true,
		"cccxx|cccccc": false,
	} {
		s, _, _ := climb(ladder.Start(4), played)
		assert.Equal(t, stuck, r.Stuck(s), played)
	}
	s, _, _ := climb(ladder.Start(4), "cc")
	assert.Equal(t, 1, r.Needs(s))
}

func TestATakeOfAnotherRungChangesNothing(t *testing.T) {
	s, move := ladder.Standard().Next(ladder.Start(4), ladder.Entry{What: ladder.Tried, Rung: 3, Result: verdict.Clean})
	assert.Equal(t, ladder.Elsewhere, move)
	assert.Equal(t, 0, s.Clean)
}

// The history replays to the same state, whatever happened, and never leaves the
// ladder.
func TestTheLogReplaysToTheSameState(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rungs := rapid.IntRange(1, 12).Draw(t, "rungs")
		played := rapid.StringMatching(`[cccnxh?b|]{0,80}`).Draw(t, "played")
		s, _, log := climb(ladder.Start(rungs), played)
		raw, err := json.Marshal(log)
		require.NoError(t, err)
		var kept []ladder.Entry
		require.NoError(t, json.Unmarshal(raw, &kept))
		require.Equal(t, s, ladder.Standard().Replay(rungs, kept))
		require.GreaterOrEqual(t, s.Rung, 1)
		require.LessOrEqual(t, s.Rung, rungs)
		require.LessOrEqual(t, s.DayTries, 12)
		require.Less(t, s.Clean, 3)
		require.Less(t, s.Fails, 2)
	})
}

// The ready ladders are climbed from bottom to top, for everyone they are for.
func TestEveryReadyLadderCanBeClimbed(t *testing.T) {
	for _, l := range exercise.Ladders() {
		for _, i := range instrument.All() {
			if !l.Suits(i) {
				continue
			}
			rungs := len(l.Rungs(i))
			s := ladder.Start(rungs)
			for day := 0; !s.Reached; day++ {
				require.Less(t, day, 40)
				for range 12 {
					s, _ = ladder.Standard().Next(s, ladder.Entry{
						What:   ladder.Tried,
						Day:    fmt.Sprint(day),
						Rung:   s.Rung,
						Result: verdict.Clean,
					})
				}
			}
			assert.Equal(t, rungs, s.Rung, "%s on %s", l.Key, i.Key)
		}
	}
}

// The history is the way between where one began and where one stands, and
// nothing else.
func TestTheHistoryTellsEveryTurn(t *testing.T) {
	_, _, log := climb(ladder.Start(4), "cccn|xx|cccccc|b|ccccccccc")
	got := ladder.Standard().History(4, log)
	want := []ladder.Turn{
		{"2026-03-01", ladder.Up, 1, 2},
		{"2026-03-02", ladder.Back, 2, 1},
		{"2026-03-03", ladder.Up, 1, 2},
		{"2026-03-03", ladder.Up, 2, 3},
		{"2026-03-04", ladder.Back, 3, 2},
		{"2026-03-05", ladder.Up, 2, 3},
		{"2026-03-05", ladder.Up, 3, 4},
		{"2026-03-05", ladder.Goal, 4, 4},
	}
	assert.Equal(t, want, got)
	assert.Empty(t, ladder.Standard().History(4, nil))

	rapid.Check(t, func(t *rapid.T) {
		end, _, log := climb(ladder.Start(3), rapid.StringMatching(`[cnxhb|]{0,40}`).Draw(t, "played"))
		rung := 1
		for _, turn := range ladder.Standard().History(3, log) {
			assert.Equal(t, rung, turn.From)
			assert.True(t, turn.Move == ladder.Goal || turn.Rung != rung, "a turn goes somewhere")
			rung = turn.Rung
		}
		assert.Equal(t, end.Rung, rung)
	})
	placed := ladder.Standard().History(
		4,
		[]ladder.Entry{
			{What: ladder.Placed, Day: "2026-03-01", Rung: 3},
			{What: ladder.Placed, Day: "2026-03-02", Rung: 3},
		},
	)
	assert.Equal(t, []ladder.Turn{{"2026-03-01", ladder.MovedTo, 1, 3}}, placed)
}
