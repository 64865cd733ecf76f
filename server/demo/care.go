package demo

import (
	"context"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/server/store"
)

// care has most instruments looked after: two of three players this week, half of them this
// month.
func (s Seeder) care(ctx context.Context, players []store.Player, today time.Time) error {
	for n, p := range players {
		for _, c := range []struct {
			every exercise.Every
			days  int
			done  bool
		}{
			{exercise.Weekly, 2 + n%4, n%3 != 0},
			{exercise.Monthly, 11 + n%9, n%2 == 0},
		} {
			if !c.done {
				continue
			}
			err := s.Store.SaveCare(
				ctx,
				store.CareDone{PlayerID: p.ID, Every: c.every, Day: today.AddDate(0, 0, -c.days)},
			)
			if err != nil {
				return err
			}
		}
	}
	return nil
}
