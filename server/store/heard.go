package store

import (
	"context"
	"time"

	"github.com/google/uuid"

	"earlychorus/core/measure"
	"earlychorus/core/verdict"
)

// NewID makes the number of a new row.
func NewID() string { return uuid.NewString() }

// ID returns a row's number in its one spelling, whatever the case and the marks it
// comes in; "" for what is none.
func ID(text string) string {
	id, err := uuid.Parse(text)
	if err != nil {
		return ""
	}
	return id.String()
}

// IsID reports whether a text could be the number of a row: what is none is not
// asked of the database. Another spelling of a number is none.
func IsID(text string) bool { return text != "" && ID(text) == text }

// Heard is the word on one take, the director's before the measured one.
type Heard struct {
	PlayerID   string
	Instrument string
	Result     verdict.Result
	Cause      measure.Cause
}

// HeardBetween returns the words on a class's takes of some days, the latest
// first; mostHeard at most.
func (s *Store) HeardBetween(ctx context.Context, classID string, from, to time.Time) (out []Heard, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.player_id, p.instrument, coalesce(r.result, t.result) AS result, t.cause
		FROM counted_take t
		JOIN player p ON p.id = t.player_id AND p.class_id = ? AND p.left_at IS NULL
		LEFT JOIN LATERAL (SELECT result FROM review WHERE take_id = t.id ORDER BY reviewed_at DESC LIMIT 1) r ON true
		WHERE t.result <> '' AND t.day BETWEEN ? AND ?
			ORDER BY t.received_at DESC LIMIT ?`, classID, from, to, mostHeard).Scan(&out).Error
	return out, err
}

// HeardOf is HeardBetween of one player.
func (s *Store) HeardOf(ctx context.Context, playerID string, from, to time.Time) (out []Heard, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.player_id, coalesce(r.result, t.result) AS result, t.cause
		FROM counted_take t
		LEFT JOIN LATERAL (SELECT result FROM review WHERE take_id = t.id ORDER BY reviewed_at DESC LIMIT 1) r ON true
		WHERE t.player_id = ? AND t.result <> '' AND t.day BETWEEN ? AND ?
			ORDER BY t.received_at DESC LIMIT ?`, playerID, from, to, mostHeard).Scan(&out).Error
	return out, err
}

// mostHeard is takes of a class in a fortnight: forty players, ten steps a day, with
// room.
const mostHeard = 20_000
