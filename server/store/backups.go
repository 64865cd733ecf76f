package store

import (
	"context"
	"time"
)

// BackupMade is a nightly backup as it went.
type BackupMade struct {
	ID      int64     `json:"-"`
	Name    string    `json:"name" doc:"its moment"`
	BeganAt time.Time `json:"began_at"`
	EndedAt time.Time `json:"ended_at"`
	Sounds  int       `json:"sounds"`
	Copied  int       `json:"copied" doc:"the others were there"`
	Missing int       `json:"missing" doc:"recordings that were not there to be copied"`
	Problem string    `json:"problem,omitempty" doc:"why it was not finished"`
}

// TableName is the trade's word.
func (BackupMade) TableName() string { return "backup_made" }

// mostBackupsNoted is how many the database remembers.
const mostBackupsNoted = 400

// NoteBackup remembers how a backup went, and forgets the oldest.
func (s *Store) NoteBackup(ctx context.Context, b BackupMade) error {
	if err := s.db.WithContext(ctx).Create(&b).Error; err != nil {
		return err
	}
	return s.db.WithContext(ctx).Exec("DELETE FROM backup_made WHERE id <= ?", b.ID-mostBackupsNoted).Error
}

// LastBackups returns the last backups, the newest first.
func (s *Store) LastBackups(ctx context.Context, most int) (out []BackupMade, err error) {
	err = s.db.WithContext(ctx).Order("id DESC").Limit(most).Find(&out).Error
	return out, err
}
