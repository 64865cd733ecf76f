package store

import (
	"context"
	"crypto/rand"
	"time"
)

// keyBytes is AES-256's.
const keyBytes = 32

// KeepKey returns the key that a player's devices keep takes under, making it
// the first time it is asked for.
func (s *Store) KeepKey(ctx context.Context, playerID string) (key []byte, err error) {
	fresh := make([]byte, keyBytes)
	_, _ = rand.Read(fresh) // does not fail
	db := s.db.WithContext(ctx)
	if err := db.Exec(
		"UPDATE player SET keep_key = ? WHERE id = ? AND keep_key IS NULL",
		fresh,
		playerID,
	).Error; err != nil {
		return nil, err
	}
	err = db.Raw("SELECT keep_key FROM player WHERE id = ?", playerID).Row().Scan(&key)
	return key, err
}

// DeviceWord counts takes that a device gave its word on, and on how many the
// server's was another.
type DeviceWord struct {
	Takes  int `json:"takes"`
	Differ int `json:"differ"`
}

// DeviceWordSince counts a class's takes since an instant by whether the device
// and the server agreed.
func (s *Store) DeviceWordSince(ctx context.Context, classID string, since time.Time) (out DeviceWord, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT count(*) AS takes, count(*) FILTER (WHERE a.result <> t.device_result) AS differ
		FROM counted_take t
		JOIN player p ON p.id = t.player_id AND p.class_id = ?
		JOIN LATERAL (SELECT result FROM analysis WHERE take_id = t.id ORDER BY version DESC LIMIT 1) a ON true
		WHERE t.device_result <> '' AND t.received_at >= ?`, classID, since).Scan(&out).Error
	return out, err
}
