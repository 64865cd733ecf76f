package store

import (
	"context"
	"time"
)

// JudgedAgain reports whether everything that was kept has been judged by a version
// of the ear.
func (s *Store) JudgedAgain(ctx context.Context, version int) (done bool, err error) {
	err = s.db.WithContext(ctx).
		Raw("SELECT EXISTS (SELECT 1 FROM judged_again WHERE version >= ?)", version).Scan(&done).Error
	return done, err
}

// SetJudgedAgain remembers that everything that was kept has been judged by a version.
func (s *Store) SetJudgedAgain(ctx context.Context, version int, at time.Time) error {
	return s.db.WithContext(ctx).
		Exec("INSERT INTO judged_again VALUES (?, ?) ON CONFLICT DO NOTHING", version, at).Error
}

// LastID comes after every number a take can have.
const LastID = "ffffffff-ffff-ffff-ffff-ffffffffffff"

// OldJudgement is a take that an older version of the ear judged, with when it came.
type OldJudgement struct {
	ID         string
	ReceivedAt time.Time
}

// JudgedBefore returns takes that an older version judged and that came before
// another, the latest first, as far as their recordings are still there.
func (s *Store) JudgedBefore(
	ctx context.Context, version int, before OldJudgement, most int,
) (out []OldJudgement, err error) {
	if before.ID == "" {
		before.ID = LastID // before a moment, whichever take it is
	}
	err = s.db.WithContext(ctx).Raw(`
		SELECT t.id, t.received_at FROM take t
		WHERE (t.received_at, t.id) < (?, ?::uuid) AND t.result <> '' AND t.sound_gone_at IS NULL
			AND NOT EXISTS (SELECT 1 FROM analysis a WHERE a.take_id = t.id AND a.version >= ?)
		ORDER BY t.received_at DESC, t.id DESC LIMIT ?`, before.ReceivedAt, before.ID, version, most).Scan(&out).Error
	return out, err
}

// CountJudgedBefore counts them all.
func (s *Store) CountJudgedBefore(ctx context.Context, version int) (count int, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT count(*) FROM take t WHERE t.result <> '' AND t.sound_gone_at IS NULL
			AND NOT EXISTS (SELECT 1 FROM analysis a WHERE a.take_id = t.id AND a.version >= ?)`,
		version).Scan(&count).Error
	return count, err
}
