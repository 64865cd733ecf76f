package store

import (
	"context"
	"time"
)

// ToneNote is how a note of a take sounded, with what tells whether it can be compared.
type ToneNote struct {
	TakeID     string
	PlayerID   string
	Day        time.Time
	Sounding   int
	Through    string
	FloorDB    float64 `gorm:"column:floor_db"`
	RingS      float64 `gorm:"column:ring_s"`
	LevelDB    float64 `gorm:"column:level_db"`
	Clearness  float64
	Brightness float64
	Fullness   float64
}

// ToneOf returns how the notes of a take sounded, as far as that can be relied on.
func (s *Store) ToneOf(ctx context.Context, t Take) (out []ToneNote, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT n.*, t.through, t.floor_db, t.ring_s FROM take t JOIN take_note n ON n.take_id = t.id
		WHERE t.id = ? AND n.clearness IS NOT NULL AND t.floor_db IS NOT NULL ORDER BY n.number`, t.ID).
		Scan(&out).Error
	return out, err
}

// mostTones bounds what one take is compared with: a player's four weeks.
const mostTones = 5_000

// ToneBefore returns how some notes sounded in a player's takes that came before one,
// from a day on, the latest first.
func (s *Store) ToneBefore(ctx context.Context, t Take, notes []int, from time.Time) (out []ToneNote, err error) {
	if len(notes) == 0 {
		return nil, nil
	}
	err = s.db.WithContext(ctx).Raw(`
		SELECT n.*, t.through, t.floor_db, t.ring_s FROM take_note n JOIN take t ON t.id = n.take_id
		WHERE n.player_id = ? AND n.day BETWEEN ? AND ? AND n.sounding IN ? AND n.clearness IS NOT NULL
			AND t.played_at < ? AND t.floor_db IS NOT NULL
		ORDER BY t.played_at DESC LIMIT ?`, t.PlayerID, from, t.Day, notes, t.PlayedAt, mostTones).Scan(&out).Error
	return out, err
}

// ToneByDay returns how players' notes sounded on each of some days, a row for each
// player, day, note and microphone, oldest first: many takes of one evening say one thing.
func (s *Store) ToneByDay(ctx context.Context, players []string, from, to time.Time) (out []ToneNote, err error) {
	if len(players) == 0 {
		return nil, nil
	}
	err = s.db.WithContext(ctx).Raw(`
		SELECT n.player_id, n.day, n.sounding, t.through, avg(t.floor_db) AS floor_db, min(t.ring_s) AS ring_s,
			avg(n.level_db) AS level_db, avg(n.clearness) AS clearness, avg(n.brightness) AS brightness,
			avg(n.fullness) AS fullness
		FROM take_note n JOIN take t ON t.id = n.take_id
		WHERE n.player_id IN ? AND n.day BETWEEN ? AND ? AND n.clearness IS NOT NULL AND t.floor_db IS NOT NULL
		GROUP BY n.player_id, n.day, n.sounding, t.through
		ORDER BY n.day, max(t.played_at)`, players, from, to).Scan(&out).Error
	return out, err
}
