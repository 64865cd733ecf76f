package store

import (
	"context"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"earlychorus/server/problem"
)

// SchoolPerson is somebody of a school, with or without a class.
type SchoolPerson struct {
	SchoolID    string
	DirectorID  string
	Administers bool
}

// AddPerson gives a school a director who has no class yet; the account is made.
func (s *Store) AddPerson(ctx context.Context, schoolID string, d Director, administers bool) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&d).Error; err != nil {
			return err
		}
		return tx.Create(&SchoolPerson{SchoolID: schoolID, DirectorID: d.ID, Administers: administers}).Error
	})
}

// Join makes a director one of a school's people; once is enough.
func (s *Store) Join(ctx context.Context, schoolID, directorID string) error {
	return join(s.db.WithContext(ctx), schoolID, directorID)
}

func join(tx *gorm.DB, schoolID, directorID string) error {
	return tx.Clauses(clause.OnConflict{DoNothing: true}).
		Create(&SchoolPerson{SchoolID: schoolID, DirectorID: directorID}).Error
}

// Person is somebody of a school, as a list shows them.
type Person struct {
	ID          string
	Name        string
	Email       string
	Administers bool
	Classes     int
}

// PeopleOf lists a school's people by name; mostPeople at most.
func (s *Store) PeopleOf(ctx context.Context, schoolID string) (out []Person, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT d.id, d.name, d.email, sp.administers, (
			SELECT count(*) FROM class_director cd JOIN class c ON c.id = cd.class_id AND c.archived_at IS NULL
			WHERE cd.director_id = d.id AND c.school_id = sp.school_id) AS classes
		FROM school_person sp JOIN director d ON d.id = sp.director_id
		WHERE sp.school_id = ? ORDER BY d.name LIMIT ?`, schoolID, mostPeople).Scan(&out).Error
	return out, err
}

const mostPeople = 2000

// SetPassword gives an account another password.
func (s *Store) SetPassword(ctx context.Context, directorID, hash string) error {
	done := s.db.WithContext(ctx).Exec("UPDATE director SET password_hash = ? WHERE id = ?", hash, directorID)
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return done.Error
}

// RenewPassword gives an account another password for its owner, who may have lost the device
// that makes codes, too: none is asked for any more.
func (s *Store) RenewPassword(ctx context.Context, directorID, hash string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := (&Store{db: tx}).SetPassword(ctx, directorID, hash); err != nil {
			return err
		}
		return tx.Exec("UPDATE director SET totp_secret = '' WHERE id = ?", directorID).Error
	})
}

// PersonOf returns somebody of a school, or ErrNotFound.
func (s *Store) PersonOf(ctx context.Context, schoolID, directorID string) (d Director, err error) {
	if !IsID(directorID) {
		return d, ErrNotFound
	}
	err = s.db.WithContext(ctx).
		Where("id = ? AND id IN (SELECT director_id FROM school_person WHERE school_id = ?)", directorID, schoolID).
		Take(&d).Error
	return d, found(err)
}

// OfOneSchool reports whether somebody is of no school but one.
func (s *Store) OfOneSchool(ctx context.Context, schoolID, directorID string) (bool, error) {
	var others int64
	err := s.db.WithContext(ctx).
		Raw("SELECT count(*) FROM school_person WHERE director_id = ? AND school_id <> ?", directorID, schoolID).
		Scan(&others).Error
	return others == 0, err
}

// LeaveSchool ends somebody's part in a school: its classes, and its administration. Their
// account stays where they are of another school, and goes with the last one. A conflict
// where nobody else directs a class of it, or administers it.
func (s *Store) LeaveSchool(ctx context.Context, schoolID, directorID string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := leaveSchool(tx, schoolID, directorID); err != nil {
			return err
		}
		var others int64
		err := tx.Raw("SELECT count(*) FROM school_person WHERE director_id = ?", directorID).Scan(&others).Error
		if err != nil || others > 0 {
			return err
		}
		return tx.Exec("DELETE FROM director WHERE id = ?", directorID).Error
	})
}

// RemoveAccount takes an account out for good, out of every school. Conflicts as of
// LeaveSchool.
func (s *Store) RemoveAccount(ctx context.Context, directorID string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		var schools []string
		err := tx.Raw("SELECT school_id FROM school_person WHERE director_id = ? ORDER BY school_id", directorID).
			Scan(&schools).Error
		if err != nil {
			return err
		}
		for _, id := range schools {
			if err := leaveSchool(tx, id, directorID); err != nil {
				return err
			}
		}
		gone := tx.Exec("DELETE FROM director WHERE id = ?", directorID)
		if gone.Error == nil && gone.RowsAffected == 0 {
			return ErrNotFound
		}
		return gone.Error
	})
}

func leaveSchool(tx *gorm.DB, schoolID, directorID string) error {
	if err := leavesAdministrator(tx, schoolID, directorID); err != nil {
		return err
	}
	who := map[string]any{"who": directorID, "school": schoolID}
	var alone int64
	err := tx.Raw(`
		SELECT count(*) FROM class_director cd JOIN class c ON c.id = cd.class_id AND c.archived_at IS NULL
		WHERE cd.director_id = @who AND c.school_id = @school AND NOT EXISTS (
			SELECT FROM class_director o WHERE o.class_id = cd.class_id AND o.director_id <> cd.director_id)`, who).
		Scan(&alone).Error
	if err != nil {
		return err
	}
	if alone > 0 {
		return problem.Of(problem.Conflict,
			"Nobody else directs one of their classes. Invite a colleague to it first, or archive it.", nil)
	}
	err = tx.Exec("DELETE FROM class_director WHERE director_id = @who AND class_id IN ("+
		"SELECT id FROM class WHERE school_id = @school)", who).Error
	if err != nil {
		return err
	}
	return tx.Exec("DELETE FROM school_person WHERE director_id = @who AND school_id = @school", who).Error
}

// leavesAdministrator refuses to take the last administrator from a school. The school is
// locked: two who name each other no administrator at once must not both.
func leavesAdministrator(tx *gorm.DB, schoolID, directorID string) error {
	if err := tx.Exec("SELECT FROM school WHERE id = ? FOR UPDATE", schoolID).Error; err != nil {
		return err
	}
	var last bool
	err := tx.Raw(`
		SELECT bool_or(director_id = @who) AND count(*) = 1 FROM school_person
		WHERE school_id = @school AND administers HAVING count(*) > 0`,
		map[string]any{"who": directorID, "school": schoolID}).Scan(&last).Error
	if err == nil && last {
		return problem.Of(problem.Conflict, "Somebody has to administer the school. Name another one first.", nil)
	}
	return err
}

// SetAdministers lets somebody of a school administer it, or ends it. A conflict where
// nobody would be left; ErrNotFound for who is not of the school.
func (s *Store) SetAdministers(ctx context.Context, schoolID, directorID string, administers bool) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if !administers {
			if err := leavesAdministrator(tx, schoolID, directorID); err != nil {
				return err
			}
		}
		set := tx.Exec("UPDATE school_person SET administers = ? WHERE school_id = ? AND director_id = ?",
			administers, schoolID, directorID)
		if set.Error == nil && set.RowsAffected == 0 {
			return ErrNotFound
		}
		return set.Error
	})
}
