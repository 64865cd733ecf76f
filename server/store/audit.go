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

// AuditLine is a line of the log with the names it is about, as far as they are still here.
type AuditLine struct {
	At     time.Time
	Role   Role
	Who    string
	Action string
	Class  string
	Player string
}

// AuditOfSchool returns what was done in a school between two moments, the latest first:
// what was done in its classes, what its people did outside any class, and who failed to
// get in. What somebody does in a class of another school is the other school's.
func (s *Store) AuditOfSchool(
	ctx context.Context, schoolID string, from, to time.Time, most int,
) (out []AuditLine, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT a.at, a.role, coalesce(d.name, q.first_name || ' ' || q.last_name, g.name, '') AS who, a.action,
			coalesce(c.name, '') AS class, coalesce(p.first_name || ' ' || p.last_name, '') AS player
		FROM audit a
			LEFT JOIN director d ON d.id = a.subject AND a.role = 'director'
			LEFT JOIN player q ON q.id = a.subject AND a.role = 'player'
			LEFT JOIN pass g ON g.id = a.subject
			LEFT JOIN player p ON p.id = a.player_id
			LEFT JOIN class c ON c.id = coalesce(a.class_id, q.class_id, p.class_id, g.class_id)
		WHERE a.at >= @from AND a.at < @to AND (c.school_id = @school
			OR c.id IS NULL AND a.subject IN (SELECT director_id FROM school_person WHERE school_id = @school))
		ORDER BY a.at DESC, a.id DESC LIMIT @most`,
		map[string]any{"school": schoolID, "from": from, "to": to, "most": most}).Scan(&out).Error
	return out, err
}
