package store

import (
	"context"
	"time"

	"earlychorus/core/verdict"
)

// TakeNote is one note of a take, as maps and growth count it.
type TakeNote struct {
	TakeID     string
	Number     int
	PlayerID   string
	Day        time.Time `gorm:"type:date"`
	Sounding   int
	Good       bool
	Trusted    bool
	Centre     float64
	Steadiness float64
	Held       float64
}

// SectionNotes returns the notes that players of these instruments in a class
// were asked for on some days.
func (s *Store) SectionNotes(ctx context.Context, classID string, instruments []string, from, to time.Time) (out []TakeNote, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT n.player_id, n.day, n.sounding, n.good, n.trusted, n.centre, n.steadiness, n.held, n.take_id, n.number
		FROM player p JOIN take_note n ON n.player_id = p.id AND n.day BETWEEN ? AND ?
		WHERE p.class_id = ? AND p.instrument IN ? AND p.left_at IS NULL LIMIT ?`, from, to, classID, instruments, mostNotes).Scan(&out).Error
	return out, err
}

// PlayerNotes returns a player's notes of some days, oldest first.
func (s *Store) PlayerNotes(ctx context.Context, playerID string, from, to time.Time) (out []TakeNote, err error) {
	err = s.db.WithContext(ctx).Where("player_id = ? AND day BETWEEN ? AND ?", playerID, from, to).Order("day, take_id, number").Limit(mostNotes).Find(&out).Error
	return out, err
}

const mostNotes = 100_000

// DayTake is the word on one take of a day.
type DayTake struct {
	TakeID     string
	PlayerID   string
	Instrument string
	StepID     string
	Result     verdict.Result
	Cause      verdict.Cause
	Written    string
}

// TakesOfDay returns the words on a class's takes of a day in the order they were
// made, the director's before the measured one.
func (s *Store) TakesOfDay(ctx context.Context, classID string, day time.Time) (out []DayTake, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.id AS take_id, t.player_id, p.instrument, t.step_id, coalesce(r.result, t.result) AS result, t.cause,
			coalesce((SELECT string_agg(seg->>'written_name', ' ') FROM jsonb_array_elements(s.body->'segments') seg WHERE seg->>'phase' IN ('play', 'buzz', 'sing')), '') AS written
		FROM take t JOIN player p ON p.id = t.player_id AND p.class_id = ? AND p.left_at IS NULL JOIN score s ON s.id = t.score_id
		LEFT JOIN LATERAL (SELECT result FROM review WHERE take_id = t.id ORDER BY reviewed_at DESC LIMIT 1) r ON true
		WHERE t.day = ? AND t.result <> '' ORDER BY t.received_at LIMIT ?`, classID, day, mostOfDay).Scan(&out).Error
	return out, err
}

const mostOfDay = 5000

// DaysPlayed returns on which days a player played, between two.
func (s *Store) DaysPlayed(ctx context.Context, playerID string, from, to time.Time) (days []time.Time, err error) {
	err = s.db.WithContext(ctx).Raw("SELECT DISTINCT day FROM take WHERE player_id = ? AND day BETWEEN ? AND ? ORDER BY day", playerID, from, to).Scan(&days).Error
	return days, err
}

// Progress is one note of one take with everything that tells whose it is.
type Progress struct {
	Day        time.Time `json:"day"`
	PlayerID   string    `json:"player_id"`
	FirstName  string    `json:"first_name"`
	LastName   string    `json:"last_name"`
	Instrument string    `json:"instrument"`
	Kind       string    `json:"kind"`
	StepID     string    `json:"step_id"`
	TakeID     string    `json:"take_id"`
	Result     string    `json:"result"` // measured
	Word       string    `json:"word"`   // the director's, or ""
	Number     int       `json:"note"`
	Sounding   int       `json:"sounding_midi"`
	Good       bool      `json:"good"`
	Trusted    bool      `json:"trusted"`
	Centre     float64   `json:"centre_cents"`
	Steadiness float64   `json:"steadiness_cents"`
	Held       float64   `json:"held_s"`
}

// EachProgress visits everything measured in a class, oldest first, without
// holding it all at once.
func (s *Store) EachProgress(ctx context.Context, classID string, visit func(Progress) error) error {
	db := s.db.WithContext(ctx)
	rows, err := db.Raw(`
		SELECT t.day, t.player_id, p.first_name, p.last_name, p.instrument, s.kind, t.step_id, t.id AS take_id, t.result,
			coalesce((SELECT result FROM review WHERE take_id = t.id ORDER BY reviewed_at DESC LIMIT 1), '') AS word,
			n.number, n.sounding, n.good, n.trusted, n.centre, n.steadiness, n.held
		FROM player p JOIN take t ON t.player_id = p.id JOIN step s ON s.id = t.step_id JOIN take_note n ON n.take_id = t.id
		WHERE p.class_id = ? ORDER BY t.day, t.received_at, n.number`, classID).Rows()
	if err != nil {
		return err
	}
	defer rows.Close() //nolint:errcheck // read to the end below
	for rows.Next() {
		var p Progress
		if err := db.ScanRows(rows, &p); err != nil {
			return err
		}
		if err := visit(p); err != nil {
			return err
		}
	}
	return rows.Err()
}
