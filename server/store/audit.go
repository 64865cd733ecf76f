package store

import (
	"context"
	"time"
)

// Audited is a line of what was done with children's data: by whom, what, to whose, when.
// It holds no names, which may be deleted while it stays.
type Audited struct {
	ID       int64
	At       time.Time
	Role     Role
	Subject  *string
	Action   string
	ClassID  *string
	PlayerID *string
	Object   *string
}

// TableName is the trade's word.
func (Audited) TableName() string { return "audit" }

// Audit writes a line. Whose class and player a take is of is looked up, where only the
// take is known.
func (s *Store) Audit(ctx context.Context, a Audited) error {
	return s.db.WithContext(ctx).Exec(`
		INSERT INTO audit (at, role, subject, action, class_id, player_id, object)
		SELECT @at, @role, CAST(@subject AS uuid), @action, coalesce(CAST(@class_id AS uuid), p.class_id),
			coalesce(CAST(@player_id AS uuid), p.id), CAST(@object AS uuid)
		FROM (SELECT 1) AS always
			LEFT JOIN take t ON t.id = CAST(@object AS uuid)
			LEFT JOIN player p ON p.id = coalesce(CAST(@player_id AS uuid), t.player_id)`,
		map[string]any{
			"at": a.At.UTC(), "role": a.Role, "subject": a.Subject, "action": a.Action,
			"class_id": a.ClassID, "player_id": a.PlayerID, "object": a.Object,
		}).Error
}

// AuditOfClass returns what was done in a class between two moments, the latest first.
func (s *Store) AuditOfClass(
	ctx context.Context, classID string, from, to time.Time, most int,
) (out []Audited, err error) {
	err = s.db.WithContext(ctx).
		Where("class_id = ? AND at >= ? AND at < ?", classID, from, to).
		Order("at DESC, id DESC").Limit(most).Find(&out).Error
	return out, err
}
