package store

import (
	"context"
	"encoding/json"

	"gorm.io/gorm"

	"earlychorus/core/roster"
)

// ListWords is what a school's people said of their lists.
func (s *Store) ListWords(ctx context.Context, schoolID string) (roster.Taught, error) {
	return listWords(s.db.WithContext(ctx), schoolID)
}

func listWords(tx *gorm.DB, schoolID string) (out roster.Taught, err error) {
	var raw []byte
	if err := tx.Raw("SELECT list_words FROM school WHERE id = ?", schoolID).Row().Scan(&raw); err != nil {
		return out, err
	}
	err = json.Unmarshal(raw, &out)
	return out, err
}

// LearnList adds what was said of a list as it was taken in.
func (s *Store) LearnList(ctx context.Context, schoolID string, columns []roster.Column, rows []roster.Row) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		// Two lists at once teach both.
		if err := tx.Exec("SELECT FROM school WHERE id = ? FOR UPDATE", schoolID).Error; err != nil {
			return err
		}
		before, err := listWords(tx, schoolID)
		if err != nil {
			return err
		}
		raw, err := json.Marshal(before.Learn(columns, rows))
		if err != nil {
			return err
		}
		return tx.Exec("UPDATE school SET list_words = ? WHERE id = ?", string(raw), schoolID).Error
	})
}
