package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"

	"earlychorus/core/verdict"
)

// Overrule sets the director's word on a take.
func (s *Store) Overrule(ctx context.Context, r Review) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{
		Columns: []clause.Column{{Name: "take_id"}}, UpdateAll: true,
	}).Create(&r).Error
}

// TakeBackReview lets the measured verdict stand again.
func (s *Store) TakeBackReview(ctx context.Context, takeID string) error {
	return s.db.WithContext(ctx).Where("take_id = ?", takeID).Delete(&Review{}).Error
}

// ReviewOf returns the director's word on a take; ok is false when there is none.
func (s *Store) ReviewOf(ctx context.Context, takeID string) (result verdict.Result, ok bool, err error) {
	var rows []Review
	err = s.db.WithContext(ctx).Where("take_id = ?", takeID).Find(&rows).Error
	if len(rows) == 0 {
		return "", false, err
	}
	return rows[0].Result, true, err
}

// AddComment remembers a comment.
func (s *Store) AddComment(ctx context.Context, c Comment) error {
	return s.db.WithContext(ctx).Omit("Director").Create(&c).Error
}

// CommentsOf returns the comments on takes, oldest first; mostComments at most.
func (s *Store) CommentsOf(ctx context.Context, takeIDs ...string) (out []Comment, err error) {
	err = s.db.WithContext(ctx).Preload("Director").Where("take_id IN ?", takeIDs).
		Order("written_at").Limit(mostComments).Find(&out).Error
	return out, err
}

const mostComments = 200

// CommentsForPlayer returns the latest comments on a player's takes since a
// moment, newest first.
func (s *Store) CommentsForPlayer(ctx context.Context, playerID string, since time.Time, most int) (out []Comment, err error) {
	err = s.db.WithContext(ctx).Preload("Director").
		Joins("JOIN take ON take.id = comment.take_id AND take.player_id = ?", playerID).
		Where("written_at >= ?", since).Order("written_at DESC").Limit(most).Find(&out).Error
	return out, err
}
