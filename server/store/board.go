package store

import (
	"context"
	"encoding/json"
	"time"

	"earlychorus/core/measure"
	"earlychorus/core/verdict"
)

// Cell is a player's latest take of a step on a day, as the board shows it.
type Cell struct {
	TakeID      string
	StepID      string
	PlayerID    string
	StepVersion int
	Takes       int // how many the player made
	Comments    int
	Failure     string
	Simulated   bool            // a simulated player made it
	Result      verdict.Result  // measured; "" while it waits
	Overruled   verdict.Result  // the director's word, or ""
	Cause       measure.Cause   // what decided, unless it is clean
	Conclusion  json.RawMessage // the verdict without its measures; null for takes judged before it was kept
	Short       string          // of those, in a few words
	Written     string          // the notes that were read
	Ribbon      json.RawMessage // null while it waits
}

// Board returns who has played some steps on a day: one cell for each step and
// player who has.
func (s *Store) Board(ctx context.Context, stepIDs []string, day time.Time) (out []Cell, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.id AS take_id, t.step_id, t.player_id, t.step_version, t.takes, t.failure,
		       t.source = 'simulated' AS simulated,
		       t.result, t.cause, t.conclusion, t.short, score.written, coalesce(r.result, '') AS overruled, a.ribbon,
		       (SELECT count(*) FROM comment WHERE comment.take_id = t.id) AS comments
		FROM (
			SELECT DISTINCT ON (step_id, player_id) *, count(*) OVER (PARTITION BY step_id, player_id) AS takes
			FROM counted_take WHERE step_id IN ? AND day = ? ORDER BY step_id, player_id, received_at DESC
		) t
		JOIN score ON score.id = t.score_id
		LEFT JOIN LATERAL (SELECT ribbon FROM analysis WHERE take_id = t.id ORDER BY version DESC LIMIT 1) a ON true
		LEFT JOIN LATERAL (SELECT result
			FROM review WHERE take_id = t.id
				ORDER BY reviewed_at DESC LIMIT 1) r ON true`, stepIDs, day).Scan(&out).Error
	return out, err
}
