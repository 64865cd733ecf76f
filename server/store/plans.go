package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"earlychorus/core/plan"
	"earlychorus/server/problem"
)

// mostHistory bounds how many changes of a plan are listed.
const mostHistory = 60

// PlanOf returns a class's plan of the week that begins on a Monday, with what
// its newest revision holds. A week without a plan has revision 0 and no items.
func (s *Store) PlanOf(ctx context.Context, classID string, monday time.Time) (p Plan, items []plan.Item, err error) {
	db := s.db.WithContext(ctx)
	err = found(db.Where("class_id = ? AND monday = ?", classID, monday).Take(&p).Error)
	if errors.Is(err, ErrNotFound) {
		return Plan{ClassID: classID, Monday: monday}, []plan.Item{}, nil
	}
	if err != nil {
		return p, nil, err
	}
	items, err = revisionItems(db, p.ID, p.Revision)
	return p, items, err
}

// revisionItems is a plan as it was at a revision; nothing at 0, before anybody
// planned.
func revisionItems(db *gorm.DB, planID string, revision int) ([]plan.Item, error) {
	if revision == 0 {
		return []plan.Item{}, nil
	}
	var r PlanRevision
	err := db.Where("plan_id = ? AND revision = ?", planID, revision).Take(&r).Error
	return r.Items, found(err)
}

// PlanHistory lists who changed a plan, the latest first, without what it held.
func (s *Store) PlanHistory(ctx context.Context, planID string) (out []PlanRevision, err error) {
	err = s.db.WithContext(ctx).Preload("Director").Omit("Items").Where("plan_id = ?", planID).
		Order("revision DESC").Limit(mostHistory).Find(&out).Error
	return out, err
}

// PlanChange is what somebody wants a week to be.
type PlanChange struct {
	ClassID    string
	DirectorID string
	Monday     time.Time
	Name       string
	Based      int // the revision the change was made from
	Items      []plan.Item
	At         time.Time
}

// SavedPlan is a plan after a change, or why it was not made.
type SavedPlan struct {
	Plan      Plan
	Items     []plan.Item
	Merged    bool            // somebody else's changes came in between, and are in it
	Conflicts []plan.Conflict // when there are any, nothing was saved
}

// ChangePlan makes a change. Where somebody changed the plan meanwhile, both
// changes are brought together; nothing is saved while they contradict each
// other. The steps to be played follow in the same transaction.
func (s *Store) ChangePlan(ctx context.Context, c PlanChange) (out SavedPlan, err error) {
	err = s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p, err := lockPlan(tx, c)
		if err != nil {
			return err
		}
		// The row is locked: nobody saves between here and the end.
		now, err := revisionItems(tx, p.ID, p.Revision)
		if err != nil {
			return err
		}
		// Mostly nobody was there meanwhile, and what came is what is kept.
		items := c.Items
		// Somebody saved in between. Three plans are compared: what both began from, theirs and
		// ours.
		if p.Revision != c.Based {
			base, err := revisionItems(tx, p.ID, c.Based)
			if errors.Is(err, ErrNotFound) {
				return problem.Of(
					problem.Conflict,
					"This plan was changed from one that is not there any more. Look at it again.",
					nil,
				)
			} else if err != nil {
				return err
			}
			out.Merged = true
			if items, out.Conflicts = plan.Merge(base, now, items); len(out.Conflicts) > 0 {
				out.Plan, out.Items = p, now
				return nil
			}
		}
		return s.keep(tx, c, p, now, items, &out)
	})
	return out, err
}

// lockPlan makes the week's plan if it is not there, and holds it.
func lockPlan(tx *gorm.DB, c PlanChange) (p Plan, err error) {
	// Made if it is not there, then locked: two first saves of a week must not make two plans.
	fresh := Plan{
		ID:      uuid.NewString(),
		ClassID: c.ClassID,
		Monday:  c.Monday,
		Name:    c.Name,
	}
	if err := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&fresh).Error; err != nil {
		return p, err
	}
	err = tx.Clauses(clause.Locking{Strength: "UPDATE"}).
		Where("class_id = ? AND monday = ?", c.ClassID, c.Monday).
		Take(&p).Error
	return p, found(err)
}

// keep writes a revision only where something changed: a page that saves itself
// would fill the history with nothing.
func (s *Store) keep(tx *gorm.DB, c PlanChange, p Plan, before, items []plan.Item, out *SavedPlan) error {
	out.Plan, out.Items = p, items
	changes := plan.Changes(before, items)
	if changes == "nothing" && p.Name == c.Name && p.Revision > 0 {
		return nil
	}
	p.Revision++
	p.Name = c.Name
	if err := tx.Model(&p).Updates(map[string]any{"revision": p.Revision, "name": p.Name}).Error; err != nil {
		return err
	}
	r := PlanRevision{
		PlanID:     p.ID,
		Revision:   p.Revision,
		Items:      items,
		DirectorID: c.DirectorID,
		ChangedAt:  c.At,
		Changes:    changes,
	}
	if err := tx.Omit("Director").Create(&r).Error; err != nil {
		return err
	}
	out.Plan = p
	return placeSteps(tx, p, items, c.At)
}

// placeSteps makes the class's steps what the plan says: new ones are added,
// changed ones follow with a new version, those taken away go unless they were
// played.
func placeSteps(tx *gorm.DB, p Plan, items []plan.Item, at time.Time) error {
	var there []Step
	if err := tx.Where("plan_id = ?", p.ID).Find(&there).Error; err != nil {
		return err
	}
	// Steps that stay keep their numbers, and with them the takes that were played of them.
	known := map[string]Step{}
	for _, step := range there {
		known[step.ID] = step
	}
	for n, i := range items {
		step := stepOf(p, i, n+1)
		if before, ok := known[i.Key]; ok {
			if err := followStep(tx, before, step, at); err != nil {
				return err
			}
			delete(known, i.Key)
			continue
		}
		if err := addSteps(tx, []Step{step}, at); err != nil {
			return fmt.Errorf("step %s: %w", i.Key, err)
		}
	}
	// What is left is no longer on the plan.
	for id := range known {
		if err := takeOff(tx, id); err != nil {
			return err
		}
	}
	return nil
}

// stepOf is an item as a step to be played. Its number is the item's, so that a step
// stays itself however often it is moved.
func stepOf(p Plan, i plan.Item, position int) Step {
	step := Step{
		ID:         i.Key,
		ClassID:    p.ClassID,
		PlanID:     &p.ID,
		Position:   position,
		Kind:       i.Step.Kind.Key,
		Parameters: i.Step.Parameters(),
		FirstDay:   p.Monday,
		LastDay:    p.Monday.AddDate(0, 0, 6),
		Days:       i.Days,
		Place:      i.At,
		Times:      i.Times,
		For:        append([]string{}, i.For...),
		Why:        i.Why,
		Called:     i.Called,
		Wanted:     i.Wanted,
		Pinned:     i.Pinned,
		Test:       i.Test,
	}
	if i.Test != nil {
		step.openUntilDue()
	}
	return step
}

// openUntilDue has a test open on every day from the first it is planned for to the one it is
// due.
func (s *Step) openUntilDue() {
	for day := plan.Day(0); day < 7; day++ {
		if s.Days.Has(day) {
			s.FirstDay = s.FirstDay.AddDate(0, 0, int(day))
			break
		}
	}
	if due, err := time.Parse(time.DateOnly, s.Test.Due); err == nil {
		s.LastDay = due
	}
	if s.LastDay.Before(s.FirstDay) {
		s.FirstDay = s.LastDay
	}
	s.Days = everyDay
}

const everyDay plan.Days = 0b1111111

// followStep makes a new version where the parameters changed, so that takes keep
// the words they were played by.
func followStep(tx *gorm.DB, before, step Step, at time.Time) error {
	if before.Kind != step.Kind {
		return problem.Of(problem.Conflict, "A step keeps its kind. Add a new one of the other kind instead.", nil)
	}
	if err := tx.Omit("Kind").Save(&step).Error; err != nil {
		return err
	}
	var newest StepVersion
	if err := tx.Where("step_id = ?", step.ID).Order("version DESC").Take(&newest).Error; err != nil {
		return found(err)
	}
	if sameParameters(newest.Parameters, step.Parameters) {
		return nil
	}
	return tx.Create(&StepVersion{step.ID, newest.Version + 1, step.Parameters, at}).Error
}

// sameParameters compares what two objects say, not how they are written.
func sameParameters(a, b json.RawMessage) bool {
	var x, y any
	if json.Unmarshal(a, &x) != nil || json.Unmarshal(b, &y) != nil {
		return false
	}
	// Written the same way before they are compared: the database puts keys in an order of its
	// own.
	p, errP := json.Marshal(x)
	q, errQ := json.Marshal(y)
	return errP == nil && errQ == nil && string(p) == string(q)
}

// takeOff takes a step off its plan. One that was played stays known, but is on
// no day any more.
func takeOff(tx *gorm.DB, stepID string) error {
	gone := tx.Exec(
		// A step that was never played leaves no trace; one that was is only marked, for its takes
		// need it.
		`DELETE FROM step WHERE id = ? AND NOT EXISTS (SELECT
			FROM take WHERE step_id = step.id) AND NOT EXISTS (SELECT FROM tick WHERE step_id = step.id)`,
		stepID,
	)
	if gone.Error != nil || gone.RowsAffected > 0 {
		return gone.Error
	}
	return tx.Exec("UPDATE step SET removed = true WHERE id = ?", stepID).Error
}

// Templates lists a director's own weeks by name; mostTemplates at most.
func (s *Store) Templates(ctx context.Context, directorID string) (out []PlanTemplate, err error) {
	err = s.db.WithContext(ctx).Where("director_id = ?", directorID).Order("name").Limit(mostTemplates).Find(&out).Error
	return out, err
}

// mostTemplates bounds a director's own weeks.
const mostTemplates = 100

// SaveTemplate keeps a director's own week.
func (s *Store) SaveTemplate(ctx context.Context, t PlanTemplate) error {
	return s.db.WithContext(ctx).Create(&t).Error
}

// DeleteTemplate forgets one of a director's own weeks.
func (s *Store) DeleteTemplate(ctx context.Context, id, directorID string) error {
	gone := s.db.WithContext(ctx).Where("id = ? AND director_id = ?", id, directorID).Delete(&PlanTemplate{})
	// Somebody else's template is not there for the asker.
	if gone.Error == nil && gone.RowsAffected == 0 {
		return ErrNotFound
	}
	return gone.Error
}
