package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"time"

	"gorm.io/gorm"

	"earlychorus/server/problem"
)

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

// MayBegin refuses as BeginSchool does, before anything is made: ErrNotFound for a wrong
// code; a conflict when a school is there already.
func (s *Store) MayBegin(ctx context.Context, code string) error {
	return mayBegin(s.db.WithContext(ctx), code)
}

func mayBegin(tx *gorm.DB, code string) error {
	var schools, codes int64
	if err := tx.Model(&School{}).Limit(1).Count(&schools).Error; err != nil {
		return err
	}
	if schools > 0 {
		return problem.Of(problem.Conflict, "There is a school here already. Sign in, or ask its administrator.", nil)
	}
	err := tx.Raw("SELECT count(*) FROM first_start WHERE code_sha256 = ?", codeHash(code)).Scan(&codes).Error
	if err == nil && codes == 0 {
		return ErrNotFound
	}
	return err
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
		if err := mayBegin(tx, code); err != nil {
			return err
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

// SchoolState is how a school runs.
type SchoolState struct {
	Classes  int   `json:"classes"`
	Players  int   `json:"players"`
	Takes    int   `json:"takes" doc:"of seven days, today among them"`
	Database int64 `json:"database_bytes" doc:"of the whole database"`
}

// StateOfSchool counts what a school has; takes are found by their day, which an index has.
func (s *Store) StateOfSchool(ctx context.Context, schoolID string, now time.Time) (out SchoolState, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT
			(SELECT count(*) FROM class WHERE school_id = @school AND archived_at IS NULL) AS classes,
			(SELECT count(*) FROM player p JOIN class c ON c.id = p.class_id
				WHERE c.school_id = @school AND c.archived_at IS NULL AND p.left_at IS NULL) AS players,
			(SELECT count(*) FROM take t JOIN player p ON p.id = t.player_id JOIN class c ON c.id = p.class_id
				WHERE c.school_id = @school AND t.day >= @since) AS takes,
			pg_database_size(current_database()) AS database`,
		map[string]any{"school": schoolID, "since": now.AddDate(0, 0, -6).Format(time.DateOnly)}).Scan(&out).Error
	return out, err
}
