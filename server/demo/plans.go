package demo

import (
	"context"
	"time"

	"earlychorus/core/plan"
	"earlychorus/server/store"
)

// plans makes the demo's week, from the first of its days on. Where the demo is
// begun on a weekend, what is on for Friday is on for that day as well.
func (s Seeder) plans(ctx context.Context, today time.Time) error {
	first := store.Monday(firstDay(today)[0])
	for monday := first.AddDate(
		0,
		0,
		-7*weeksBack,
	); monday.Before(today.AddDate(0, 0, 7*planWeeks)); monday = monday.AddDate(0, 0, 7) {
		week := plan.DemoWeek()
		if monday.Before(first) {
			week = earlierWeek()
		}
		if monday.Equal(store.Monday(today)) {
			week.Items = append(week.Items, dueTest(today))
		}
		for n := range week.Items {
			i := &week.Items[n]
			i.Key = stepID(i.Key, monday)
			if day := weekday(today); day > friday && i.Days.Has(friday) {
				i.Days |= plan.On(day)
			}
		}
		_, err := s.Store.ChangePlan(ctx, store.PlanChange{
			ClassID:    id("class"),
			DirectorID: id("director"),
			Monday:     monday,
			Name:       week.Name,
			Items:      week.Items,
			At:         s.Now().UTC(),
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// weekday counts from Monday, as plans do; Go counts from Sunday.
func weekday(day time.Time) plan.Day { return plan.Day((int(day.Weekday()) + 6) % 7) }

// stepID is a step's name in the week that begins on a Monday.
func stepID(key string, monday time.Time) string {
	return id("step/%s/%s", key, monday.Format(time.DateOnly))
}
