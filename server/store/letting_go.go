package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// Kept is what a row keeps outside the database.
type Kept struct{ ID, Sound string }

// SoundsToLetGo returns takes whose recordings were kept as long as their class
// wants, the oldest first.
func (s *Store) SoundsToLetGo(ctx context.Context, now time.Time, most int) (out []Kept, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.id, t.sound FROM take t JOIN player p ON p.id = t.player_id JOIN class c ON c.id = p.class_id
		WHERE t.sound_gone_at IS NULL AND t.received_at < ?::timestamptz - c.keep_days * interval '1 day'
			AND t.received_at < ?::timestamptz - (SELECT min(keep_days)
				FROM class) * interval '1 day' -- where the index may stop
		ORDER BY t.received_at LIMIT ?`, now, now, most).Scan(&out).Error
	return out, err
}

// VoicesToLetGo returns voice notes that were kept as long as their class wants, the oldest
// first.
func (s *Store) VoicesToLetGo(ctx context.Context, now time.Time, most int) (out []Kept, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT n.id, n.sound FROM comment n JOIN take t ON t.id = n.take_id
			JOIN player p ON p.id = t.player_id JOIN class c ON c.id = p.class_id
		WHERE n.kind = 'voice' AND n.sound_gone_at IS NULL
			AND n.written_at < ?::timestamptz - coalesce(nullif(c.keep_voice_days, 0), c.keep_days) * interval '1 day'
		ORDER BY n.written_at LIMIT ?`, now, most).Scan(&out).Error
	return out, err
}

// VoiceGone remembers that a voice note's sound was let go of.
func (s *Store) VoiceGone(ctx context.Context, commentID string, at time.Time) error {
	return s.db.WithContext(ctx).Model(&Comment{}).Where("id = ?", commentID).Update("sound_gone_at", at).Error
}

// SoundGone remembers that a take's recording was let go of; what was measured
// stays.
func (s *Store) SoundGone(ctx context.Context, takeID string, at time.Time) error {
	return s.db.WithContext(ctx).Model(&Take{}).Where("id = ?", takeID).Update("sound_gone_at", at).Error
}

// Forgotten is what a deletion took: rows here, and sounds outside the database.
type Forgotten struct {
	Takes      int `json:"takes"`
	Recordings int `json:"recordings"`
	VoiceNotes int `json:"voice_notes"`
	Comments   int `json:"comments"`
	Jobs       int `json:"jobs" doc:"that still waited, or remembered a take"`
	Parts      int `json:"parts" doc:"half-sent recordings"`
}

// ForgetPlayer deletes a class's player for good, with everything measured, said and
// still to be done, and returns the names of the sounds that must be deleted outside
// the database, and what was deleted.
func (s *Store) ForgetPlayer(
	ctx context.Context,
	classID, playerID string,
) (sounds []string, what Forgotten, err error) {
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		err := tx.Raw(`
			SELECT sound FROM take WHERE player_id = ? AND sound <> ''
			UNION ALL SELECT c.sound FROM comment c JOIN take t ON t.id = c.take_id
				WHERE t.player_id = ? AND c.sound <> ''`, playerID, playerID).Scan(&sounds).Error
		if err != nil {
			return err
		}
		err = tx.Raw(`
			SELECT (SELECT count(*) FROM take WHERE player_id = @p) AS takes,
				(SELECT count(*) FROM take
					WHERE player_id = @p AND sound <> '' AND sound_gone_at IS NULL) AS recordings,
				(SELECT count(*) FROM comment c JOIN take t ON t.id = c.take_id
					WHERE t.player_id = @p AND c.sound <> '' AND c.sound_gone_at IS NULL) AS voice_notes,
				(SELECT count(*) FROM comment c JOIN take t ON t.id = c.take_id WHERE t.player_id = @p) AS comments`,
			map[string]any{"p": playerID}).Scan(&what).Error
		if err != nil {
			return err
		}
		// The queue's memory of what was listened to names the takes, too.
		jobs := tx.Exec(`DELETE FROM river_job WHERE kind = 'analyze_take' AND state <> 'running'
			AND args->>'take_id' IN (SELECT id::text FROM take WHERE player_id = ?)`, playerID)
		if jobs.Error != nil {
			return jobs.Error
		}
		what.Jobs = int(jobs.RowsAffected)
		gone := tx.Where("id = ? AND class_id = ?", playerID, classID).Delete(&Player{})
		if gone.Error == nil && gone.RowsAffected == 0 {
			return ErrNotFound
		}
		return gone.Error
	})
	return sounds, what, err
}
