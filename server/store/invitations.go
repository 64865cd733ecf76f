package store

import (
	"context"
	"time"

	"gorm.io/gorm"

	"earlychorus/server/problem"
)

// Invitation asks a director to direct a class too.
type Invitation struct {
	ClassID string
	Class   string // its name
	School  string
	By      string // who asks
	Email   string
	At      time.Time
}

// Invite asks whoever signs in with an address to direct a class too; asking again is
// harmless, and so is asking somebody who does already.
func (s *Store) Invite(ctx context.Context, classID, email, byID string, at time.Time) error {
	return s.db.WithContext(ctx).Exec(`
		INSERT INTO class_invitation (class_id, email, invited_by, at)
		SELECT ?, ?, ?, ? WHERE NOT EXISTS (
			SELECT FROM class_director cd JOIN director d ON d.id = cd.director_id
			WHERE cd.class_id = ? AND d.email = ?)
		ON CONFLICT (class_id, email) DO UPDATE SET invited_by = excluded.invited_by, at = excluded.at`,
		classID, EmailKey(email), byID, at.UTC(), classID, EmailKey(email)).Error
}

const invitations = `
	SELECT i.class_id, c.name AS class, sc.name AS school, d.name AS by, i.email, i.at
	FROM class_invitation i JOIN class c ON c.id = i.class_id AND c.archived_at IS NULL
		JOIN school sc ON sc.id = c.school_id JOIN director d ON d.id = i.invited_by `

// InvitationsTo returns what a director is asked to direct; mostClasses at most.
func (s *Store) InvitationsTo(ctx context.Context, directorID string) (out []Invitation, err error) {
	err = s.db.WithContext(ctx).Raw(
		invitations+"WHERE i.email = (SELECT email FROM director WHERE id = ?) ORDER BY i.at LIMIT ?",
		directorID, mostClasses,
	).Scan(&out).Error
	return out, err
}

// InvitationsOf returns whom a class has asked; mostClasses at most.
func (s *Store) InvitationsOf(ctx context.Context, classID string) (out []Invitation, err error) {
	err = s.db.WithContext(ctx).Raw(
		invitations+"WHERE i.class_id = ? ORDER BY i.at LIMIT ?", classID, mostClasses,
	).Scan(&out).Error
	return out, err
}

// AnswerInvitation ends an invitation, and lets the director direct the class when it is
// accepted. ErrNotFound when there is none.
func (s *Store) AnswerInvitation(ctx context.Context, classID, directorID string, accept bool) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		gone := tx.Exec(`DELETE FROM class_invitation
			WHERE class_id = ? AND email = (SELECT email FROM director WHERE id = ?)`, classID, directorID)
		if gone.Error == nil && gone.RowsAffected == 0 {
			return ErrNotFound
		}
		if gone.Error != nil || !accept {
			return gone.Error
		}
		return direct(tx, classID, directorID)
	})
}

// direct gives somebody a class, and makes them one of its school's people.
func direct(tx *gorm.DB, classID, directorID string) error {
	err := tx.Exec("INSERT INTO class_director VALUES (?, ?) ON CONFLICT DO NOTHING", classID, directorID).Error
	if err != nil {
		return err
	}
	var c Class
	if err := tx.Select("school_id").Where("id = ?", classID).Take(&c).Error; err != nil {
		return found(err)
	}
	return join(tx, c.SchoolID, directorID)
}

// TakeBackInvitation ends what was asked of an address.
func (s *Store) TakeBackInvitation(ctx context.Context, classID, email string) error {
	return s.db.WithContext(ctx).
		Exec("DELETE FROM class_invitation WHERE class_id = ? AND email = ?", classID, EmailKey(email)).Error
}

// RemoveDirector ends a director's right to a class; the last one stays. ErrNotFound for
// somebody who does not direct it.
func (s *Store) RemoveDirector(ctx context.Context, classID, directorID string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		// Two who leave at once must not both be last.
		var directors []string
		err := tx.Raw("SELECT director_id FROM class_director WHERE class_id = ? FOR UPDATE", classID).
			Scan(&directors).Error
		if err != nil {
			return err
		}
		if len(directors) == 1 && directors[0] == directorID {
			return problem.Of(
				problem.Conflict, "Somebody has to direct the class. Invite a colleague first, or archive it.", nil,
			)
		}
		gone := tx.Exec("DELETE FROM class_director WHERE class_id = ? AND director_id = ?", classID, directorID)
		if gone.Error == nil && gone.RowsAffected == 0 {
			return ErrNotFound
		}
		return gone.Error
	})
}
