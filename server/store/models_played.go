package store

import (
	"context"
	"crypto/sha256"
	"time"

	"gorm.io/gorm/clause"

	"earlychorus/core/exercise"
)

// Model is a step as its director played it, for all or for one instrument.
type Model struct {
	ID         string
	DirectorID string
	Asks       []byte // what it is of
	Instrument string // "" for all
	Sound      []byte // FLAC
	Seconds    float64
	MadeAt     time.Time
}

// AsksKey is what a step asks for, as models are found by it: the same in any week and class.
func AsksKey(x exercise.Step) []byte {
	sum := sha256.Sum256(append([]byte(x.Kind.Key), x.Parameters()...))
	return sum[:]
}

// mostModels bounds a director's models: a school year of steps.
const mostModels = 400

// KeepModel keeps a model; one of the same step and instrument is replaced. full: the
// director has as many as are kept.
func (s *Store) KeepModel(ctx context.Context, m Model) (full bool, err error) {
	var n int64
	if err := s.db.WithContext(ctx).Model(&Model{}).Where("director_id = ?", m.DirectorID).Count(&n).Error; err != nil {
		return false, err
	}
	if n >= mostModels {
		return true, nil
	}
	return false, s.db.WithContext(ctx).Clauses(clause.OnConflict{
		Columns:   []clause.Column{{Name: "director_id"}, {Name: "asks"}, {Name: "instrument"}},
		DoUpdates: clause.AssignmentColumns([]string{"id", "sound", "seconds", "made_at"}),
	}).Create(&m).Error
}

// ModelsOf lists what the directors of a class have played of some steps, without the sound,
// the latest first.
func (s *Store) ModelsOf(ctx context.Context, classID string, asks [][]byte) (out []Model, err error) {
	if len(asks) == 0 {
		return nil, nil
	}
	err = s.db.WithContext(ctx).Omit("Sound").
		Where("asks IN ?", asks).
		Where("director_id IN (SELECT director_id FROM class_director WHERE class_id = ?)", classID).
		Order("made_at DESC").
		Limit(mostModels).
		Find(&out).
		Error
	return out, err
}

// ModelOf returns a model that a director of the class played, or ErrNotFound.
func (s *Store) ModelOf(ctx context.Context, classID, id string) (m Model, err error) {
	err = s.db.WithContext(ctx).
		Where("id = ? AND director_id IN (SELECT director_id FROM class_director WHERE class_id = ?)", id, classID).
		Take(&m).Error
	return m, found(err)
}

// DropModel lets a director's own model go, or returns ErrNotFound.
func (s *Store) DropModel(ctx context.Context, id, directorID string) error {
	gone := s.db.WithContext(ctx).Where("id = ? AND director_id = ?", id, directorID).Delete(&Model{})
	if gone.Error == nil && gone.RowsAffected == 0 {
		return ErrNotFound
	}
	return gone.Error
}
