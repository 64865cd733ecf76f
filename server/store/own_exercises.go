package store

import (
	"context"
	"encoding/json"
	"time"

	"gorm.io/gorm/clause"

	"earlychorus/core/exercise"
)

// OwnExercise is a step with its parameters that a director keeps under a name, for all of
// their classes.
type OwnExercise struct {
	ID         string
	DirectorID string
	Name       string
	Kind       string
	Parameters json.RawMessage `gorm:"type:jsonb"`
	MadeAt     time.Time
}

// Exercise returns what the exercise asks for.
func (o OwnExercise) Exercise() (exercise.Step, error) { return exercise.Kept(o.Kind, o.Parameters) }

// mostOwnExercises bounds a director's own exercises.
const mostOwnExercises = 200

// OwnExercises lists a director's own exercises by name; mostOwnExercises at most.
func (s *Store) OwnExercises(ctx context.Context, directorID string) (out []OwnExercise, err error) {
	err = s.db.WithContext(ctx).
		Where("director_id = ?", directorID).
		Order("name").
		Limit(mostOwnExercises).
		Find(&out).
		Error
	return out, err
}

// SaveOwnExercise keeps an exercise; one of the same name is replaced.
func (s *Store) SaveOwnExercise(ctx context.Context, o OwnExercise) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{
		Columns:   []clause.Column{{Name: "director_id"}, {Name: "name"}},
		DoUpdates: clause.AssignmentColumns([]string{"kind", "parameters", "made_at"}),
	}).Create(&o).Error
}

// DeleteOwnExercise forgets one of a director's own exercises. ErrNotFound when it is
// somebody else's.
func (s *Store) DeleteOwnExercise(ctx context.Context, id, directorID string) error {
	gone := s.db.WithContext(ctx).Where("id = ? AND director_id = ?", id, directorID).Delete(&OwnExercise{})
	if gone.Error == nil && gone.RowsAffected == 0 {
		return ErrNotFound
	}
	return gone.Error
}
