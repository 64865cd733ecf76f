package store

import (
	"context"
	"time"

	"gorm.io/gorm"

	"earlychorus/core/roster"
	"earlychorus/server/classcode"
)

// AddClass remembers a new class of a director's school.
func (s *Store) AddClass(ctx context.Context, c Class, directorID string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := createClass(tx, &c); err != nil {
			return err
		}
		return direct(tx, c.ID, directorID)
	})
}

// SchoolsOfDirector returns the schools a director is of; mostClasses at most.
func (s *Store) SchoolsOfDirector(ctx context.Context, directorID string) (out []School, err error) {
	err = s.db.WithContext(ctx).
		Where("id IN (SELECT school_id FROM school_person WHERE director_id = ?)", directorID).
		Order("name").Limit(mostClasses).Find(&out).Error
	return out, err
}

// DirectorsOf returns who directs a class, by name.
func (s *Store) DirectorsOf(ctx context.Context, classID string) (out []Director, err error) {
	err = s.db.WithContext(ctx).
		Joins("JOIN class_director cd ON cd.director_id = director.id AND cd.class_id = ?", classID).
		Order("director.name").
		Limit(mostClasses).
		Find(&out).
		Error
	return out, err
}

// ShareClass lets another director direct a class too. Doing it again is
// harmless.
func (s *Store) ShareClass(ctx context.Context, classID, directorID string) error {
	return direct(s.db.WithContext(ctx), classID, directorID)
}

// AddDirector remembers a director who has no class yet.
func (s *Store) AddDirector(ctx context.Context, d Director) error {
	return s.db.WithContext(ctx).Create(&d).Error
}

// CodeTaken reports whether a class has this code.
func (s *Store) CodeTaken(ctx context.Context, code string) (bool, error) {
	var n int64
	err := s.db.WithContext(ctx).Model(&Class{}).
		Where("regexp_replace(code, '[^A-Z0-9]', '', 'g') = ?", classcode.Key(code)).Count(&n).Error
	return n > 0, err
}

// SetCode gives a class a new code; the old one opens nothing from then on.
func (s *Store) SetCode(ctx context.Context, classID, code string) error {
	return s.db.WithContext(ctx).Model(&Class{}).Where("id = ?", classID).Update("code", code).Error
}

// SaveSettings keeps what a class follows.
func (s *Store) SaveSettings(ctx context.Context, c Class) error {
	return s.db.WithContext(ctx).
		Model(&c).
		Select("Name", "OwnConventions", "Tips", "Remedies", "FirstLesson", "ClassMinutes", "HomeMinutes", "KeepDays",
			"KeepVoiceDays", "KeepMeasuresDays", "SimulatedPlayers").
		Updates(&c).
		Error
}

// ArchiveClass closes a class: its takes and plans stay, nobody plays for it.
func (s *Store) ArchiveClass(ctx context.Context, classID string, at time.Time) error {
	return s.db.WithContext(ctx).Model(&Class{}).Where("id = ?", classID).Update("archived_at", at).Error
}

// OpenClassAgain takes a class out of the archive.
func (s *Store) OpenClassAgain(ctx context.Context, classID string) error {
	return s.db.WithContext(ctx).Model(&Class{}).Where("id = ?", classID).Update("archived_at", nil).Error
}

// PlayerOfClass returns a player on a class's list, or ErrNotFound.
func (s *Store) PlayerOfClass(ctx context.Context, classID, playerID string) (p Player, err error) {
	if !IsID(classID) || !IsID(playerID) {
		return p, ErrNotFound
	}
	err = s.db.WithContext(ctx).
		Preload("Class").
		Where("id = ? AND class_id = ? AND left_at IS NULL", playerID, classID).
		Take(&p).
		Error
	return p, found(err)
}

// SaveRoster adds and changes players in one go: all of them or none.
func (s *Store) SaveRoster(ctx context.Context, added, changed []Player) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if len(added) > 0 {
			if err := tx.Omit("Class").Create(&added).Error; err != nil {
				return err
			}
		}
		for _, p := range changed {
			err := tx.Model(&p).
				Select(roster.Columns()).
				Updates(&p).
				Error
			if err != nil {
				return err
			}
		}
		return nil
	})
}

// TakeOffRoster takes a player off the list. The takes stay.
func (s *Store) TakeOffRoster(ctx context.Context, classID, playerID string, at time.Time) error {
	left := s.db.WithContext(ctx).
		Model(&Player{}).
		Where("id = ? AND class_id = ? AND left_at IS NULL", playerID, classID).
		Updates(map[string]any{"left_at": at, "external_id": ""})
	if left.Error == nil && left.RowsAffected == 0 {
		return ErrNotFound
	}
	return left.Error
}

// SetPINs gives players new PINs.
func (s *Store) SetPINs(ctx context.Context, hashes map[string]string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		for id, hash := range hashes {
			if err := tx.Model(&Player{}).Where("id = ?", id).Update("pin_hash", hash).Error; err != nil {
				return err
			}
		}
		return nil
	})
}
