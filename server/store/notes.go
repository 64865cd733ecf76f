package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5/pgtype"

	"earlychorus/core/exercise"
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

	LevelDB    *float64 `gorm:"column:level_db"` // these four are nil where the tone cannot be relied on
	Clearness  *float64
	Brightness *float64
	Fullness   *float64
}

// NoteTally is what one player's takes of one note come to.
type NoteTally struct {
	PlayerID   string
	Sounding   int
	Takes      int
	Good       int
	Centres    []float64 // of the takes whose pitch can be trusted
	Steadiness []float64 // of the same takes
}

// SectionTallies returns what players of these instruments in a class made of the
// notes they were asked for on some days. The rows stay in the database: a year of
// a section has ten thousand.
func (s *Store) SectionTallies(
	ctx context.Context,
	classID string,
	instruments []string,
	from, to time.Time,
) (out []NoteTally, err error) {
	rows, err := s.db.WithContext(ctx).Raw(`
		SELECT n.player_id, n.sounding, count(*), count(*) FILTER (WHERE n.good),
			coalesce(array_agg(n.centre) FILTER (WHERE n.trusted), '{}'),
				coalesce(array_agg(n.steadiness) FILTER (WHERE n.trusted), '{}')
		FROM player p JOIN take_note n ON n.player_id = p.id AND n.day BETWEEN ? AND ?
		WHERE p.class_id = ? AND p.instrument IN ? AND p.left_at IS NULL
			GROUP BY n.player_id, n.sounding`, from, to, classID, instruments).Rows()
	if err != nil {
		return nil, err
	}
	defer rows.Close() //nolint:errcheck // read to the end below
	// database/sql knows no arrays; the driver's own map does.
	arrays := pgtype.NewMap()
	for rows.Next() {
		var t NoteTally
		if err := rows.Scan(
			&t.PlayerID,
			&t.Sounding,
			&t.Takes,
			&t.Good,
			arrays.SQLScanner(&t.Centres),
			arrays.SQLScanner(&t.Steadiness),
		); err != nil {
			return nil, err
		}
		out = append(out, t)
	}
	return out, rows.Err()
}

// PlayerNotes returns a player's notes of some days, oldest first.
func (s *Store) PlayerNotes(ctx context.Context, playerID string, from, to time.Time) (out []TakeNote, err error) {
	err = s.db.WithContext(ctx).
		Where("player_id = ? AND day BETWEEN ? AND ?", playerID, from, to).
		Order("day, take_id, number").
		Limit(mostNotes).
		Find(&out).
		Error
	return out, err
}

// LongestTakes returns which of a player's takes of some days were of the longest
// long tone: how long a note is held says something there.
func (s *Store) LongestTakes(ctx context.Context, p Player, from, to time.Time) (map[string]bool, error) {
	var ids []string
	err := s.db.WithContext(ctx).Raw(`
		SELECT t.id FROM step s JOIN counted_take t ON t.player_id = ? AND t.step_id = s.id
		WHERE s.class_id = ? AND s.kind = ? AND s.first_day <= ?
			AND s.last_day >= ?`, p.ID, p.ClassID, exercise.KindLongToneLongest, to, from).Scan(&ids).Error
	out := make(map[string]bool, len(ids))
	for _, id := range ids {
		out[id] = true
	}
	return out, err
}

// mostNotes is notes of one question: a section's year.
const mostNotes = 100_000

// DaysPlayed returns on which days a player played, between two.
func (s *Store) DaysPlayed(ctx context.Context, playerID string, from, to time.Time) (days []time.Time, err error) {
	err = s.db.WithContext(ctx).
		Raw("SELECT DISTINCT day FROM counted_take WHERE player_id = ? AND day BETWEEN ? AND ? ORDER BY "+
			"day", playerID, from, to).
		Scan(&days).
		Error
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
	LevelDB    *float64  `json:"level_db"` // null where the tone cannot be relied on
	Clearness  *float64  `json:"clearness_db"`
	Brightness *float64  `json:"brightness_harmonics"`
	Fullness   *float64  `json:"fullness_harmonics"`
	Through    string    `json:"through"` // tells microphones apart
}

// EachProgress visits everything measured in a class, oldest first, without
// holding it all at once.
func (s *Store) EachProgress(ctx context.Context, classID string, visit func(Progress) error) error {
	db := s.db.WithContext(ctx)
	rows, err := db.Raw(`
		SELECT t.day, t.player_id, p.first_name, p.last_name, p.instrument, s.kind, t.step_id, t.id AS take_id,
			t.result,
			coalesce((SELECT result FROM review WHERE take_id = t.id ORDER BY reviewed_at DESC LIMIT 1), '') AS word,
			n.number, n.sounding, n.good, n.trusted, n.centre, n.steadiness, n.held,
			n.level_db, n.clearness, n.brightness, n.fullness, t.through
		FROM player p JOIN counted_take t ON t.player_id = p.id JOIN step s ON s.id = t.step_id
			JOIN take_note n ON n.take_id = t.id
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
