package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// SoundsToLetGo returns takes whose recordings were kept as long as their class
// wants, the oldest first.
func (s *Store) SoundsToLetGo(ctx context.Context, now time.Time, most int) (ids []string, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.id FROM take t JOIN player p ON p.id = t.player_id JOIN class c ON c.id = p.class_id
		WHERE t.sound_gone_at IS NULL AND t.received_at < ?::timestamptz - c.keep_days * interval '1 day'
			AND t.received_at < ?::timestamptz - (SELECT min(keep_days)
				FROM class) * interval '1 day' -- where the index may stop
		ORDER BY t.received_at LIMIT ?`, now, now, most).Scan(&ids).Error
	return ids, err
}

// SoundGone remembers that a take's recording was let go of; what was measured
// stays.
func (s *Store) SoundGone(ctx context.Context, takeID string, at time.Time) error {
	return s.db.WithContext(ctx).Model(&Take{}).Where("id = ?", takeID).Update("sound_gone_at", at).Error
}

// Everything is the names of all that is kept of a player outside the database.
type Everything struct{ Takes, Voices []string }

// ForgetPlayer deletes a class's player for good, with everything measured and
// said, and returns what must be deleted outside the database.
func (s *Store) ForgetPlayer(ctx context.Context, classID, playerID string) (out Everything, err error) {
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Raw("SELECT id FROM take WHERE player_id = ?", playerID).Scan(&out.Takes).Error; err != nil {
			return err
		}
		if err := tx.Raw(
			"SELECT c.id FROM comment c JOIN take t ON t.id = c.take_id WHERE t.player_id = ? AND c.kind = 'voice'",
			playerID,
		).Scan(&out.Voices).Error; err != nil {
			return err
		}
		gone := tx.Where("id = ? AND class_id = ?", playerID, classID).Delete(&Player{})
		if gone.Error == nil && gone.RowsAffected == 0 {
			return ErrNotFound
		}
		return gone.Error
	})
	return out, err
}
