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
}

// RaiseFlag remembers a flag; sending the same one again is harmless.
func (s *Store) RaiseFlag(ctx context.Context, f Flag) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Omit("Player").Create(&f).Error
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
