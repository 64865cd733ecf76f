package store

import "context"

// SetCodeDevice has codes of a device asked for at sign-in; "" ends it.
func (s *Store) SetCodeDevice(ctx context.Context, directorID, secret string, used int64) error {
	return s.db.WithContext(ctx).
		Exec("UPDATE director SET totp_secret = ?, totp_used = ? WHERE id = ?", secret, used, directorID).Error
}

// UseCode notes the step of a code; false where it was used meanwhile.
func (s *Store) UseCode(ctx context.Context, directorID string, step int64) (bool, error) {
	done := s.db.WithContext(ctx).
		Exec("UPDATE director SET totp_used = ? WHERE id = ? AND totp_used < ?", step, directorID, step)
	return done.RowsAffected > 0, done.Error
}
