package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"

	"earlychorus/core/exercise"
)

// CareDone is a day on which an instrument was looked after.
type CareDone struct {
	PlayerID string
	Every    exercise.Every
	Day      time.Time `gorm:"type:date"`
}

// TableName is not the plural of anything.
func (CareDone) TableName() string { return "care_done" }

// SaveCare remembers that a player looked after the instrument; twice on a day is once.
func (s *Store) SaveCare(ctx context.Context, c CareDone) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(&c).Error
}

// LatestCare returns when each of some players last looked after the instrument, by player
// and how often; MostPlayers players at most.
func (s *Store) LatestCare(ctx context.Context, playerIDs []string) (map[string]map[exercise.Every]time.Time, error) {
	var rows []CareDone
	err := s.db.WithContext(ctx).
		Raw("SELECT player_id, every, max(day) AS day FROM care_done WHERE player_id IN ? GROUP BY player_id, every",
			playerIDs).
		Scan(&rows).Error
	if err != nil {
		return nil, err
	}
	out := map[string]map[exercise.Every]time.Time{}
	for _, r := range rows {
		if out[r.PlayerID] == nil {
			out[r.PlayerID] = map[exercise.Every]time.Time{}
		}
		out[r.PlayerID][r.Every] = r.Day
	}
	return out, nil
}
