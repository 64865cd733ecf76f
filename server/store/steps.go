package store

import (
	"context"
	"slices"
	"time"

	"gorm.io/gorm"

	"earlychorus/core/plan"
)

// StepsOn returns the class's steps of a day that are played at a place, in
// order, each at its newest version.
func (s *Store) StepsOn(ctx context.Context, classID string, day time.Time, at plan.Place) (out []Step, err error) {
	weekday := 1 << ((int(day.Weekday()) + 6) % 7) // from Monday
	err = s.db.WithContext(ctx).
		Where("class_id = ? AND NOT removed AND ? BETWEEN first_day AND last_day AND days & ? <> 0 AND place IN (?, "+
			"?)", classID, day, weekday, at, plan.Both).
		Order("position").
		Limit(mostSteps).
		Find(&out).
		Error
	if err != nil || len(out) == 0 {
		return out, err
	}
	return out, s.newestOf(ctx, out)
}

// newestOf adds to steps what their newest versions ask for.
func (s *Store) newestOf(ctx context.Context, steps []Step) error {
	ids := make([]string, len(steps))
	for n, step := range steps {
		ids[n] = step.ID
	}
	var versions []StepVersion
	err := s.db.WithContext(ctx).
		Select("DISTINCT ON (step_id) *").
		Where("step_id IN ?", ids).
		Order("step_id, version DESC").
		Find(&versions).
		Error
	for _, v := range versions {
		n := slices.Index(ids, v.StepID)
		steps[n].Version, steps[n].Parameters = v.Version, v.Parameters
	}
	return err
}

// mostSteps bounds a day; nobody warms up on more.
const mostSteps = 40

// StepOfClass returns a step of the class at its newest version, or ErrNotFound.
func (s *Store) StepOfClass(ctx context.Context, classID, stepID string) (step Step, err error) {
	db := s.db.WithContext(ctx)
	if err := db.Where("id = ? AND class_id = ?", stepID, classID).Take(&step).Error; err != nil {
		return step, found(err)
	}
	err = s.newest(db, &step)
	return step, err
}

// StepAsOf returns a step of the class at the given version, or ErrNotFound.
func (s *Store) StepAsOf(ctx context.Context, classID, stepID string, version int) (step Step, err error) {
	db := s.db.WithContext(ctx)
	if err := db.Where("id = ? AND class_id = ?", stepID, classID).Take(&step).Error; err != nil {
		return step, found(err)
	}
	var v StepVersion
	err = db.Where("step_id = ? AND version = ?", stepID, version).Take(&v).Error
	step.Version, step.Parameters = v.Version, v.Parameters
	return step, found(err)
}

// newest adds what the step asks for now.
func (s *Store) newest(db *gorm.DB, step *Step) error {
	var v StepVersion
	err := db.Where("step_id = ?", step.ID).Order("version DESC").Take(&v).Error
	step.Version, step.Parameters = v.Version, v.Parameters
	return found(err)
}
