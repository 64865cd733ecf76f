package store

import (
	"context"
	"time"
)

// ExceptionsOn returns who of a class is asked for less on a day.
func (s *Store) ExceptionsOn(ctx context.Context, classID string, day time.Time) (out []Exception, err error) {
	err = s.db.WithContext(ctx).
		Joins("JOIN player ON player.id = exception.player_id AND player.class_id = ?", classID).
		Where("? BETWEEN exception.first_day AND exception.last_day", day).
		Limit(mostExceptions).
		Find(&out).
		Error
	return out, err
}

// ExceptionsSince returns a class's exceptions that are not over before a day.
func (s *Store) ExceptionsSince(ctx context.Context, classID string, day time.Time) (out []Exception, err error) {
	err = s.db.WithContext(ctx).
		Joins("JOIN player ON player.id = exception.player_id AND player.class_id = ?", classID).
		Where("exception.last_day >= ?", day).
		Order("exception.first_day").
		Limit(mostExceptions).
		Find(&out).
		Error
	return out, err
}

// mostExceptions bounds a class's: ten a player in a year.
const mostExceptions = 1000

// AddException remembers an exception.
func (s *Store) AddException(ctx context.Context, e Exception) error {
	return s.db.WithContext(ctx).Create(&e).Error
}

// EndException forgets an exception of a class's player.
func (s *Store) EndException(ctx context.Context, id, classID string) error {
	gone := s.db.WithContext(ctx).
		Where("id = ? AND player_id IN (SELECT id FROM player WHERE class_id = ?)", id, classID).
		Delete(&Exception{})
	if gone.Error == nil && gone.RowsAffected == 0 {
		return ErrNotFound
	}
	return gone.Error
}

// Excused reports whether a player is asked for nothing of a step.
func Excused(all []Exception, playerID, stepID string) bool {
	for _, e := range all {
		if e.PlayerID == playerID && (e.StepID == nil || *e.StepID == stepID) {
			return true
		}
	}
	return false
}
