package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// MailboxLetter is a letter in the stand-in for a mail server.
type MailboxLetter struct {
	ID        int64
	Recipient string
	Subject   string
	Body      string
	At        time.Time
}

// TableName is the trade's word.
func (MailboxLetter) TableName() string { return "mailbox" }

// mostLetters is how many the stand-in keeps.
const mostLetters = 200

// PutInMailbox keeps a letter, and lets the oldest go.
func (s *Store) PutInMailbox(ctx context.Context, l MailboxLetter) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&l).Error; err != nil {
			return err
		}
		return tx.Exec("DELETE FROM mailbox WHERE id <= ?", l.ID-mostLetters).Error
	})
}

// Mailbox lists the letters of the stand-in, the latest first.
func (s *Store) Mailbox(ctx context.Context) (out []MailboxLetter, err error) {
	err = s.db.WithContext(ctx).Order("id DESC").Limit(mostLetters).Find(&out).Error
	return out, err
}

// AllowReset remembers what a letter's link carries; earlier links end.
func (s *Store) AllowReset(ctx context.Context, directorID, token string, at time.Time) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Exec("DELETE FROM password_reset WHERE director_id = ?", directorID).Error; err != nil {
			return err
		}
		return tx.Exec("INSERT INTO password_reset VALUES (?, ?, ?)", codeHash(token), directorID, at.UTC()).Error
	})
}

// ResetFor returns whose password a link may change, or ErrNotFound for one that is used, or
// from before since.
func (s *Store) ResetFor(ctx context.Context, token string, since time.Time) (d Director, err error) {
	err = s.db.WithContext(ctx).
		Where("id = (SELECT director_id FROM password_reset WHERE token_sha256 = ? AND made_at > ?)",
			codeHash(token), since.UTC()).
		Take(&d).Error
	return d, found(err)
}

// UseReset changes a password by a link, which is used up; whoever was signed in is out.
// ErrNotFound where another one used it first.
func (s *Store) UseReset(ctx context.Context, token, directorID, hash string) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		used := tx.Exec(
			"DELETE FROM password_reset WHERE token_sha256 = ? AND director_id = ?",
			codeHash(token),
			directorID,
		)
		if used.Error == nil && used.RowsAffected == 0 {
			return ErrNotFound
		}
		if used.Error != nil {
			return used.Error
		}
		if err := tx.Exec("UPDATE director SET password_hash = ? WHERE id = ?", hash, directorID).Error; err != nil {
			return err
		}
		return tx.Exec("DELETE FROM sessions WHERE role = ? AND subject = ?", RoleDirector, directorID).Error
	})
}

// WantsSummary says whether a director gets the weekly letter.
func (s *Store) WantsSummary(ctx context.Context, directorID string, wants bool) error {
	return s.db.WithContext(ctx).
		Exec("UPDATE director SET weekly_summary = ? WHERE id = ?", wants, directorID).Error
}

// SummariesDue lists directors whose letter about the week before a Monday is not written;
// most at a time.
func (s *Store) SummariesDue(ctx context.Context, monday time.Time, most int) (out []string, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT id FROM director WHERE weekly_summary AND (summary_sent IS NULL OR summary_sent < ?)
		ORDER BY id LIMIT ?`, monday, most).Scan(&out).Error
	return out, err
}

// SummaryWritten notes that a letter is on its way; false where it was already.
func (s *Store) SummaryWritten(ctx context.Context, directorID string, monday time.Time) (bool, error) {
	done := s.db.WithContext(ctx).Exec(`
		UPDATE director SET summary_sent = ? WHERE id = ? AND weekly_summary
			AND (summary_sent IS NULL OR summary_sent < ?)`, monday, directorID, monday)
	return done.RowsAffected > 0, done.Error
}

// ClassWeek is what a class did in a week.
type ClassWeek struct {
	Name    string
	Players int
	Played  int
	Takes   int
	Waiting int
}

// WeekOfClasses counts, for each class that somebody directs, who played in the seven days
// from a Monday; mostClasses at most.
func (s *Store) WeekOfClasses(ctx context.Context, directorID string, monday time.Time) (out []ClassWeek, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT c.name,
			(SELECT count(*) FROM player p WHERE p.class_id = c.id AND p.left_at IS NULL) AS players,
			(SELECT count(DISTINCT t.player_id) FROM take t JOIN player p ON p.id = t.player_id
				WHERE p.class_id = c.id AND NOT t.trial AND t.day >= @monday AND t.day < @next) AS played,
			(SELECT count(*) FROM take t JOIN player p ON p.id = t.player_id
				WHERE p.class_id = c.id AND NOT t.trial AND t.day >= @monday AND t.day < @next) AS takes,
			(SELECT count(*) FROM flag f JOIN player p ON p.id = f.player_id
				WHERE p.class_id = c.id AND f.seen_at IS NULL) AS waiting
		FROM class c JOIN class_director cd ON cd.class_id = c.id AND cd.director_id = @who
		WHERE c.archived_at IS NULL ORDER BY c.name LIMIT @most`,
		map[string]any{
			"who":    directorID,
			"monday": monday,
			"next":   monday.AddDate(0, 0, 7),
			"most":   mostClasses,
		}).Scan(&out).Error
	return out, err
}
