package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"

	"earlychorus/core/verdict"
	"earlychorus/server/problem"
)

// Overrule adds the director's word on a take; adding the same one again is
// harmless.
func (s *Store) Overrule(ctx context.Context, r Review) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(&r).Error
}

// TakeBackReview lets the measured verdict stand again.
func (s *Store) TakeBackReview(ctx context.Context, takeID string) error {
	return s.db.WithContext(ctx).Where("take_id = ?", takeID).Delete(&Review{}).Error
}

// ReviewOf returns the director's latest word on a take; ok is false when there
// is none.
func (s *Store) ReviewOf(ctx context.Context, takeID string) (result verdict.Result, ok bool, err error) {
	var rows []Review
	err = s.db.WithContext(ctx).Where("take_id = ?", takeID).Order("reviewed_at DESC").Limit(1).Find(&rows).Error
	if len(rows) == 0 {
		return "", false, err
	}
	return rows[0].Result, true, err
}

// AddComment remembers a comment; adding the same one again is harmless. A problem of
// kind Conflict tells that another take's or another director's has its number.
func (s *Store) AddComment(ctx context.Context, c Comment) error {
	db := s.db.WithContext(ctx)
	added := db.Clauses(clause.OnConflict{DoNothing: true}).Omit("Director").Create(&c)
	if added.Error != nil || added.RowsAffected == 1 {
		return added.Error
	}
	var same int64
	err := db.Model(&Comment{}).
		Where("id = ? AND take_id = ? AND director_id = ? AND sound = ?", c.ID, c.TakeID, c.DirectorID, c.Sound).
		Count(&same).Error
	if err == nil && same == 0 {
		err = problem.Of(problem.Conflict, "Something else was already said under this number. Say it again.", nil)
	}
	return err
}

// TakeBackAct undoes one of a director's own acts on a take: a word or a
// comment. voice names the sound of a voice note, which is nobody's then. ErrNotFound
// when it is neither, or somebody else's.
func (s *Store) TakeBackAct(ctx context.Context, takeID, actID, directorID string) (voice string, err error) {
	db := s.db.WithContext(ctx)
	mine := "id = ? AND take_id = ? AND director_id = ?"
	word := db.Where(mine, actID, takeID, directorID).Delete(&Review{})
	if word.Error != nil || word.RowsAffected > 0 {
		return "", word.Error
	}
	var gone []Comment
	err = db.Clauses(clause.Returning{}).Where(mine, actID, takeID, directorID).Delete(&gone).Error
	if err != nil {
		return "", err
	}
	if len(gone) == 0 {
		return "", ErrNotFound
	}
	return gone[0].Sound, nil
}

// CommentsOf returns the comments on takes, oldest first; mostComments at most.
func (s *Store) CommentsOf(ctx context.Context, takeIDs ...string) (out []Comment, err error) {
	err = s.db.WithContext(ctx).Preload("Director").Where("take_id IN ?", takeIDs).
		Order("written_at").Limit(mostComments).Find(&out).Error
	return out, err
}

// mostComments bounds what is read of one question.
const mostComments = 1000

// CommentsForPlayer returns the latest comments on a player's takes since a
// moment, newest first.
func (s *Store) CommentsForPlayer(
	ctx context.Context,
	playerID string,
	since time.Time,
	most int,
) (out []Comment, err error) {
	err = s.db.WithContext(ctx).Preload("Director").
		Joins("JOIN take ON take.id = comment.take_id AND take.player_id = ?", playerID).
		Where("written_at >= ?", since).Order("written_at DESC").Limit(most).Find(&out).Error
	return out, err
}
