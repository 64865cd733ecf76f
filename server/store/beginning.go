package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"time"

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

// NoSchoolYet reports whether the database is empty: nobody can sign in.
func (s *Store) NoSchoolYet(ctx context.Context) (bool, error) {
	var schools int64
	err := s.db.WithContext(ctx).Model(&School{}).Limit(1).Count(&schools).Error
	return schools == 0, err
}

// AllowFirstStart remembers a code with which the first school may be begun. Several
// processes may have one each: all end when there is a school.
func (s *Store) AllowFirstStart(ctx context.Context, code string, at time.Time) error {
	return s.db.WithContext(ctx).
		Exec("INSERT INTO first_start VALUES (?, ?) ON CONFLICT DO NOTHING", codeHash(code), at.UTC()).Error
}

func codeHash(code string) string {
	sum := sha256.Sum256([]byte(code))
	return hex.EncodeToString(sum[:])
}

// BeginSchool makes the first school and its administrator, for whoever has the code. The
// code is used up with it. ErrNotFound for a wrong code; a conflict when a school is there
// already.
func (s *Store) BeginSchool(ctx context.Context, code string, school School, d Director) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		// Two who begin at once must not both.
		if err := tx.Exec("LOCK TABLE school IN EXCLUSIVE MODE").Error; err != nil {
			return err
		}
		var schools, codes int64
		if err := tx.Model(&School{}).Count(&schools).Error; err != nil {
			return err
		}
		if schools > 0 {
			return problem.Of(
				problem.Conflict,
				"There is a school here already. Sign in, or ask its administrator.",
				nil,
			)
		}
		err := tx.Raw("SELECT count(*) FROM first_start WHERE code_sha256 = ?", codeHash(code)).Scan(&codes).Error
		if err != nil {
			return err
		}
		if codes == 0 {
			return ErrNotFound
		}
		if err := tx.Exec("DELETE FROM first_start").Error; err != nil {
			return err
		}
		return createSchool(tx, school, &d)
	})
}

// CreateSchool makes a school, with its administrator where one is given.
func (s *Store) CreateSchool(ctx context.Context, school School, admin *Director) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error { return createSchool(tx, school, admin) })
}

func createSchool(tx *gorm.DB, school School, admin *Director) error {
	if err := tx.Create(&school).Error; err != nil {
		return err
	}
	if admin == nil {
		return nil
	}
	if err := tx.Create(admin).Error; err != nil {
		return err
	}
	return tx.Create(&SchoolPerson{SchoolID: school.ID, DirectorID: admin.ID, Administers: true}).Error
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

// SchoolsNamed lists the schools of a name, or all where it is empty; mostSchools at most.
func (s *Store) SchoolsNamed(ctx context.Context, name string) (out []School, err error) {
	q := s.db.WithContext(ctx).Order("name").Limit(mostSchools)
	if name != "" {
		q = q.Where("lower(name) = lower(?)", name)
	}
	err = q.Find(&out).Error
	return out, err
}

const mostSchools = 1000

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

// RemoveAccount takes an account out for good. Somebody has to direct every class, and to
// administer every school: where this one is the last, it is refused.
func (s *Store) RemoveAccount(ctx context.Context, directorID string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		var alone int64
		err := tx.Raw(`
			SELECT count(*) FROM class_director cd JOIN class c ON c.id = cd.class_id AND c.archived_at IS NULL
			WHERE cd.director_id = ? AND NOT EXISTS (
				SELECT FROM class_director o WHERE o.class_id = cd.class_id AND o.director_id <> cd.director_id)`,
			directorID).
			Scan(&alone).
			Error
		if err != nil {
			return err
		}
		if alone > 0 {
			return problem.Of(problem.Conflict,
				"Nobody else directs a class of this account. Invite a colleague to it first, or archive it.", nil)
		}
		gone := tx.Exec("DELETE FROM director WHERE id = ?", directorID)
		if gone.Error == nil && gone.RowsAffected == 0 {
			return ErrNotFound
		}
		return gone.Error
	})
}

// ClassBegun is how far a new class has come.
type ClassBegun struct {
	Players int  `json:"players"`
	Carded  int  `json:"carded" doc:"players who have a PIN to sign in with"`
	Planned bool `json:"planned" doc:"a week was planned"`
	Played  bool `json:"played" doc:"somebody has handed a take in"`
}

// Begun returns how far a class has come.
func (s *Store) Begun(ctx context.Context, classID string) (out ClassBegun, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT count(*) AS players, count(*) FILTER (WHERE pin_hash <> '') AS carded,
			EXISTS (SELECT FROM plan WHERE class_id = @class AND revision > 0) AS planned,
			EXISTS (SELECT FROM take t JOIN player q ON q.id = t.player_id WHERE q.class_id = @class) AS played
		FROM player WHERE class_id = @class AND left_at IS NULL`,
		map[string]any{"class": classID}).Scan(&out).Error
	return out, err
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

// LeaveSchool ends somebody's part in a school: its classes, and its administration. Their
// account stays where they are of another school, and goes with the last one.
func (s *Store) LeaveSchool(ctx context.Context, schoolID, directorID string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		var alone, admins, others int64
		err := tx.Raw(`
			SELECT count(*) FROM class_director cd JOIN class c ON c.id = cd.class_id AND c.archived_at IS NULL
			WHERE cd.director_id = @who AND c.school_id = @school AND NOT EXISTS (
				SELECT FROM class_director o WHERE o.class_id = cd.class_id AND o.director_id <> cd.director_id)`,
			map[string]any{"who": directorID, "school": schoolID}).Scan(&alone).Error
		if err != nil {
			return err
		}
		if alone > 0 {
			return problem.Of(problem.Conflict,
				"Nobody else directs one of their classes. Invite a colleague to it first, or archive it.", nil)
		}
		err = tx.Raw("SELECT count(*) FROM school_person WHERE school_id = ? AND administers AND director_id <> ?",
			schoolID, directorID).Scan(&admins).Error
		if err != nil {
			return err
		}
		if admins == 0 {
			return problem.Of(problem.Conflict, "Somebody has to administer the school. Name another one first.", nil)
		}
		for _, gone := range []string{
			"DELETE FROM class_director WHERE director_id = @who AND class_id IN (" +
				"SELECT id FROM class WHERE school_id = @school)",
			"DELETE FROM school_person WHERE director_id = @who AND school_id = @school",
		} {
			if err := tx.Exec(gone, map[string]any{"who": directorID, "school": schoolID}).Error; err != nil {
				return err
			}
		}
		err = tx.Raw("SELECT count(*) FROM school_person WHERE director_id = ?", directorID).Scan(&others).Error
		if err != nil || others > 0 {
			return err
		}
		return tx.Exec("DELETE FROM director WHERE id = ?", directorID).Error
	})
}

// SetAdministers lets somebody administer a school, or ends it; somebody always does.
func (s *Store) SetAdministers(ctx context.Context, schoolID, directorID string, administers bool) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if !administers {
			var others int64
			err := tx.Raw("SELECT count(*) FROM school_person WHERE school_id = ? AND administers AND director_id <> ?",
				schoolID, directorID).Scan(&others).Error
			if err != nil {
				return err
			}
			if others == 0 {
				return problem.Of(
					problem.Conflict,
					"Somebody has to administer the school. Name another one first.",
					nil,
				)
			}
		}
		return tx.Exec("UPDATE school_person SET administers = ? WHERE school_id = ? AND director_id = ?",
			administers, schoolID, directorID).Error
	})
}

// SchoolState is how a school runs.
type SchoolState struct {
	Classes  int   `json:"classes"`
	Players  int   `json:"players"`
	Takes    int   `json:"takes" doc:"of the last seven days"`
	Database int64 `json:"database_bytes" doc:"of the whole database"`
}

// StateOfSchool counts what a school has; the takes of the week before now.
func (s *Store) StateOfSchool(ctx context.Context, schoolID string, now time.Time) (out SchoolState, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT
			(SELECT count(*) FROM class WHERE school_id = @school AND archived_at IS NULL) AS classes,
			(SELECT count(*) FROM player p JOIN class c ON c.id = p.class_id
				WHERE c.school_id = @school AND c.archived_at IS NULL AND p.left_at IS NULL) AS players,
			(SELECT count(*) FROM take t JOIN player p ON p.id = t.player_id JOIN class c ON c.id = p.class_id
				WHERE c.school_id = @school AND t.received_at >= @since) AS takes,
			pg_database_size(current_database()) AS database`,
		map[string]any{"school": schoolID, "since": now.AddDate(0, 0, -7)}).Scan(&out).Error
	return out, err
}
