package store

import (
	"context"
	"time"

	"earlychorus/core/consent"
)

// Consent is what a home said of one purpose. What was said before stays; the latest counts.
type Consent struct {
	ID        int64
	PlayerID  string
	Purpose   consent.Purpose
	Given     bool
	SaidBy    string
	At        time.Time
	EnteredBy *string
}

// ConsentsOf returns what each home of a class said last, by player and purpose.
func (s *Store) ConsentsOf(ctx context.Context, classID string) (out []Consent, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT DISTINCT ON (k.player_id, k.purpose) k.* FROM consent k JOIN player p ON p.id = k.player_id
		WHERE p.class_id = ? AND p.left_at IS NULL
		ORDER BY k.player_id, k.purpose, k.at DESC, k.id DESC LIMIT ?`,
		classID, MostPlayers*len(consent.Purposes())).Scan(&out).Error
	return out, err
}

// SaveConsents remembers what homes said.
func (s *Store) SaveConsents(ctx context.Context, said []Consent) error {
	if len(said) == 0 {
		return nil
	}
	return s.db.WithContext(ctx).Create(&said).Error
}

// MayOf returns what may be done with a player's takes.
func (s *Store) MayOf(ctx context.Context, playerID string) (out consent.May, err error) {
	err = s.db.WithContext(ctx).
		Raw("SELECT record, keep, show FROM player_consent WHERE player_id = ?", playerID).Scan(&out).Error
	return out, err
}

// MayOfClass is MayOf for everybody of a class.
func (s *Store) MayOfClass(ctx context.Context, classID string) (map[string]consent.May, error) {
	var rows []struct {
		PlayerID string
		consent.May
	}
	err := s.db.WithContext(ctx).Raw(`
		SELECT v.* FROM player_consent v JOIN player p ON p.id = v.player_id
		WHERE p.class_id = ? AND p.left_at IS NULL LIMIT ?`, classID, MostPlayers).Scan(&rows).Error
	out := map[string]consent.May{}
	for _, r := range rows {
		out[r.PlayerID] = r.May
	}
	return out, err
}

// AskConsent says whether a school asks homes before anything is recorded.
func (s *Store) AskConsent(ctx context.Context, schoolID string, needed bool) error {
	return s.db.WithContext(ctx).Exec("UPDATE school SET consent_needed = ? WHERE id = ?", needed, schoolID).Error
}

// SoundsWithoutConsent returns recordings that were listened to, of homes that said no to
// recording or keeping. What was there before a school began to ask stays its time: a switch that
// was pressed by mistake must delete nothing.
func (s *Store) SoundsWithoutConsent(ctx context.Context, _ time.Time, most int) (out []Kept, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.id, t.sound FROM take t
		WHERE t.sound_gone_at IS NULL AND (t.result <> '' OR t.failure <> '')
			AND t.player_id IN (SELECT player_id FROM (
				SELECT DISTINCT ON (player_id, purpose) player_id, purpose, given FROM consent
				WHERE purpose IN ('recording', 'keeping') ORDER BY player_id, purpose, at DESC, id DESC
			) latest WHERE NOT given)
		LIMIT ?`, most).Scan(&out).Error
	return out, err
}

// TakesToForget returns takes whose measures were kept as long as their class wants, the
// oldest first, with what they keep outside the database.
func (s *Store) TakesToForget(ctx context.Context, now time.Time, most int) (out []Kept, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.id, CASE WHEN t.sound_gone_at IS NULL THEN t.sound ELSE '' END AS sound
		FROM take t JOIN player p ON p.id = t.player_id JOIN class c ON c.id = p.class_id
		WHERE c.keep_measures_days > 0
			AND t.received_at < ?::timestamptz - c.keep_measures_days * interval '1 day'
			AND t.received_at < ?::timestamptz - (SELECT min(keep_measures_days)
				FROM class WHERE keep_measures_days > 0) * interval '1 day' -- where the index may stop
		ORDER BY t.received_at LIMIT ?`, now, now, most).Scan(&out).Error
	return out, err
}

// ForgetTake deletes a take with all that was measured and said of it.
func (s *Store) ForgetTake(ctx context.Context, takeID string, _ time.Time) error {
	return s.db.WithContext(ctx).Exec("DELETE FROM take WHERE id = ?", takeID).Error
}

// CopyConsents gives a player of the next year's class what the home said before.
func (s *Store) CopyConsents(ctx context.Context, from, to string) error {
	return s.db.WithContext(ctx).Exec(`
		INSERT INTO consent (player_id, purpose, given, said_by, at, entered_by)
		SELECT ?, purpose, given, said_by, at, entered_by FROM consent WHERE player_id = ? ORDER BY id`, to, from).Error
}
