package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"
)

// SaveTick remembers what a player ticked; a later word of the same day takes
// the place of an earlier one.
func (s *Store) SaveTick(ctx context.Context, t Tick) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{
		Columns: []clause.Column{{Name: "player_id"}, {Name: "step_id"}, {Name: "day"}}, UpdateAll: true,
	}).Create(&t).Error
}

// TicksOfPlayer returns what a player ticked on a day.
func (s *Store) TicksOfPlayer(ctx context.Context, playerID string, day time.Time) (out []Tick, err error) {
	err = s.db.WithContext(ctx).Where("player_id = ? AND day = ?", playerID, day).Limit(mostSteps).Find(&out).Error
	return out, err
}

// TicksOfSteps returns who ticked some steps on a day.
func (s *Store) TicksOfSteps(ctx context.Context, stepIDs []string, day time.Time) (out []Tick, err error) {
	err = s.db.WithContext(ctx).
		Where("step_id IN ? AND day = ?", stepIDs, day).
		Limit(MostPlayers * mostSteps).
		Find(&out).
		Error
	return out, err
}
