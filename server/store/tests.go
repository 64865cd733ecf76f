package store

import (
	"context"
	"time"

	"earlychorus/core/playtest"
	"earlychorus/core/verdict"
)

// mostTests bounds a class's tests at a time.
const mostTests = 100

// TestsOf returns a class's tests that are due on a day or later, the next due first, each at
// its newest version.
func (s *Store) TestsOf(ctx context.Context, classID string, from time.Time) (out []Step, err error) {
	err = s.db.WithContext(ctx).
		Where("class_id = ? AND test IS NOT NULL AND NOT removed AND last_day >= ?", classID, from).
		Order("last_day, position").
		Limit(mostTests).
		Find(&out).
		Error
	if err != nil || len(out) == 0 {
		return out, err
	}
	return out, s.newestOf(ctx, out)
}

// TestTake is a take of a test.
type TestTake struct {
	StepID   string
	PlayerID string
	TakeID   string
	Day      time.Time
	Result   verdict.Result // by the last word on it; "" while it waits
}

// mostTestTakes bounds what is read of tests at once: a hundred tries each of a large class.
const mostTestTakes = 100 * MostPlayers

// TakesOfTests returns the takes of some tests that count as played, in the order in which they
// were played; of one player, or of everybody where playerID is "".
func (s *Store) TakesOfTests(ctx context.Context, stepIDs []string, playerID string) (out []TestTake, err error) {
	if len(stepIDs) == 0 {
		return nil, nil
	}
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.step_id, t.player_id, t.id AS take_id, t.day,
			coalesce((SELECT result FROM review WHERE take_id = t.id ORDER BY reviewed_at DESC LIMIT 1), t.result, '')
				AS result
		FROM counted_take t
		WHERE t.step_id IN @steps AND (@player = '' OR t.player_id::text = @player) AND t.failure = ''
		ORDER BY t.played_at, t.received_at LIMIT @most`,
		map[string]any{"steps": stepIDs, "player": playerID, "most": mostTestTakes}).Scan(&out).Error
	return out, err
}

// StandingIn is how a player's test stands after some takes, of which those of others and of
// other tests are left out.
func StandingIn(test playtest.Test, stepID, playerID string, takes []TestTake) playtest.Standing {
	var own []playtest.Take
	for _, t := range takes {
		if t.StepID == stepID && t.PlayerID == playerID {
			own = append(own, playtest.Take{ID: t.TakeID, Day: t.Day.Format(time.DateOnly), Result: t.Result})
		}
	}
	return test.Standing(own)
}
