package store

import (
	"context"
	"encoding/json"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"earlychorus/core/plan"
	"earlychorus/core/verdict"
)

// CreateClass remembers a new class, its school and director, and everyone in
// it.
func (s *Store) CreateClass(ctx context.Context, c Class, d Director, players []Player) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		for _, row := range []any{&c.School, &d} {
			if err := tx.Create(row).Error; err != nil {
				return err
			}
		}
		if err := createClass(tx, &c); err != nil {
			return err
		}
		if err := tx.Exec("INSERT INTO class_director VALUES (?, ?)", c.ID, d.ID).Error; err != nil {
			return err
		}
		person := SchoolPerson{SchoolID: c.School.ID, DirectorID: d.ID, Administers: true}
		if err := tx.Create(&person).Error; err != nil {
			return err
		}
		if len(players) > 0 {
			if err := tx.Omit("Class").Create(&players).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// createClass fills what the database will not have null. The school is there
// already and must not be written again.
func createClass(tx *gorm.DB, c *Class) error {
	if len(c.OwnConventions) == 0 {
		c.OwnConventions = json.RawMessage("{}")
	}
	if c.Tips == nil {
		c.Tips = verdict.Book{}
	}
	if c.Remedies == nil {
		c.Remedies = plan.RemedyBook{}
	}
	if c.SimulatedPlayers == "" {
		c.SimulatedPlayers = SimulatingNo
	}
	return tx.Omit("School").Create(c).Error
}

// addSteps remembers new steps, which carry their parameters.
func addSteps(tx *gorm.DB, steps []Step, at time.Time) error {
	for _, step := range steps {
		step.For = append([]string{}, step.For...) // everyone is an empty list, not none
		if err := tx.Create(&step).Error; err != nil {
			return err
		}
		if err := tx.Create(&StepVersion{
			StepID:     step.ID,
			Version:    1,
			Parameters: step.Parameters,
			CreatedAt:  at,
		}).Error; err != nil {
			return err
		}
	}
	return nil
}

// DemoState says what a seeder finds.
type DemoState struct {
	Begun   bool // the demo's school is there
	Foreign bool // other schools are, and no demo: nothing may be added
}

// DemoState asks for schools.
func (s *Store) DemoState(ctx context.Context, schoolID string) (DemoState, error) {
	var ids []string
	err := s.db.WithContext(ctx).Model(&School{}).Limit(mostClasses).Pluck("id", &ids).Error
	state := DemoState{Foreign: len(ids) > 0}
	for _, id := range ids {
		if id == schoolID {
			state = DemoState{Begun: true}
		}
	}
	return state, err
}

// CountListened returns how many takes of a class have been analysed or given
// up.
func (s *Store) CountListened(ctx context.Context, classID string) (int, error) {
	var n int64
	err := s.db.WithContext(ctx).Model(&Take{}).
		Where("step_id IN (SELECT id FROM step WHERE class_id = ?) AND (failure <> '' OR EXISTS (SELECT FROM "+
			"analysis WHERE take_id = take.id))", classID).
		Count(&n).Error
	return int(n), err
}

// AddCommentOnce remembers a comment unless one with its number is there.
func (s *Store) AddCommentOnce(ctx context.Context, c Comment) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Omit("Director").Create(&c).Error
}
