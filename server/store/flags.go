package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"
)

// FlagKind is what a player tells.
type FlagKind string

const (
	Hurts    FlagKind = "hurts"
	Dizzy    FlagKind = "dizzy"
	Tired    FlagKind = "tired"
	Question FlagKind = "question"
)

// Flag is a player's word to the director.
type Flag struct {
	ID       string
	PlayerID string
	Player   Player
	StepID   *string
	Kind     FlagKind
	Words    string
	RaisedAt time.Time
	SeenAt   *time.Time
	// Answer is a director's, once there is one.
	Answer     string
	AnsweredBy *string
	Director   Director `gorm:"foreignKey:AnsweredBy"`
	AnsweredAt *time.Time
}

// RaiseFlag remembers a flag; sending the same one again is harmless.
func (s *Store) RaiseFlag(ctx context.Context, f Flag) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Omit("Player", "Director").Create(&f).Error
}

// OpenFlags returns what a class's players told and nobody has seen yet, pain
// first.
func (s *Store) OpenFlags(ctx context.Context, classID string) (out []Flag, err error) {
	err = s.db.WithContext(ctx).
		Preload("Player").
		Joins("JOIN player ON player.id = flag.player_id AND player.class_id = ?", classID).
		Where("flag.seen_at IS NULL").
		Order("flag.kind IN ('hurts', 'dizzy') DESC, flag.raised_at").
		Limit(mostFlags).
		Find(&out).
		Error
	return out, err
}

// mostFlags bounds what is not seen yet; nobody works through more, and the gravest
// come first.
const mostFlags = 200

// SeeFlag remembers that a director of the class has seen a flag.
func (s *Store) SeeFlag(ctx context.Context, id, classID string, at time.Time) error {
	seen := s.db.WithContext(ctx).
		Model(&Flag{}).
		Where("id = ? AND player_id IN (SELECT id FROM player WHERE class_id = ?)", id, classID).
		Update("seen_at", at)
	if seen.Error == nil && seen.RowsAffected == 0 {
		return ErrNotFound
	}
	return seen.Error
}

// AnswerFlag answers what a player told, and so it is seen, too. Errors: ErrNotFound where the
// class has no such flag.
func (s *Store) AnswerFlag(ctx context.Context, id, classID, directorID, words string, at time.Time) error {
	answered := s.db.WithContext(ctx).
		Model(&Flag{}).
		Where("id = ? AND player_id IN (SELECT id FROM player WHERE class_id = ?)", id, classID).
		Updates(map[string]any{"answer": words, "answered_by": directorID, "answered_at": at, "seen_at": at})
	if answered.Error == nil && answered.RowsAffected == 0 {
		return ErrNotFound
	}
	return answered.Error
}

// AnswersFor returns what a player asked and was answered since a moment, the latest first.
func (s *Store) AnswersFor(ctx context.Context, playerID string, since time.Time, most int) (out []Flag, err error) {
	err = s.db.WithContext(ctx).
		Preload("Director").
		Where("player_id = ? AND answered_at >= ?", playerID, since).
		Order("answered_at DESC").
		Limit(most).
		Find(&out).Error
	return out, err
}
