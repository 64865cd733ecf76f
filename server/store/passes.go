package store

import (
	"context"
	"time"
)

// Pass lets somebody in who has no account: an assistant or a substitute into a class, a
// family to one player. It ends by itself.
type Pass struct {
	ID         string
	Role       Role
	ClassID    string
	Class      Class
	PlayerID   *string
	Player     *Player
	Name       string // whose it is
	Hears      bool
	CodeSHA256 string `gorm:"column:code_sha256"`
	MadeBy     *string
	MadeAt     time.Time
	LastDay    time.Time `gorm:"type:date"`
	EndsAt     time.Time
	Email      string // a family's, where letters are wanted; "" for none
}

// MostPasses bounds the passes of a class: two for each of three hundred players' homes.
const MostPasses = 600

// AddPass remembers a pass. Its code is kept as a digest: whoever reads the database gets in
// nowhere.
func (s *Store) AddPass(ctx context.Context, p Pass, code string) error {
	p.CodeSHA256 = codeHash(code)
	return s.db.WithContext(ctx).Omit("Class", "Player").Create(&p).Error
}

// PassesOf lists a class's passes that are not over, the next to end first; MostPasses at
// most.
func (s *Store) PassesOf(ctx context.Context, classID string, now time.Time) (out []Pass, err error) {
	err = s.db.WithContext(ctx).Preload("Player").
		Where("class_id = ? AND ends_at > ?", classID, now.UTC()).
		Order("ends_at, name").Limit(MostPasses).Find(&out).Error
	return out, err
}

// goesOn is when a pass lets in: it is not over, its class is not put away, and the child of
// it is on the list.
const goesOn = `ends_at > now()
	AND EXISTS (SELECT FROM class c WHERE c.id = pass.class_id AND c.archived_at IS NULL)
	AND (player_id IS NULL OR EXISTS (SELECT FROM player p WHERE p.id = pass.player_id AND p.left_at IS NULL))`

// PassByCode returns the pass of a code, or ErrNotFound where it lets nobody in any more.
func (s *Store) PassByCode(ctx context.Context, code string) (Pass, error) {
	return s.pass(ctx, "code_sha256 = ?", codeHash(code))
}

// Pass returns a pass that goes on, or ErrNotFound.
func (s *Store) Pass(ctx context.Context, id string) (Pass, error) { return s.pass(ctx, "id = ?", id) }

func (s *Store) pass(ctx context.Context, where, what string) (p Pass, err error) {
	err = s.db.WithContext(ctx).Preload("Class.School").Preload("Player").
		Where(where, what).Where(goesOn).Take(&p).Error
	return p, found(err)
}

// EndPass ends a pass of a class and whoever is signed in by it, or ErrNotFound.
func (s *Store) EndPass(ctx context.Context, classID, id string) error {
	var role Role
	err := s.db.WithContext(ctx).
		Raw("DELETE FROM pass WHERE id = ? AND class_id = ? RETURNING role", id, classID).Scan(&role).Error
	if err != nil {
		return err
	}
	if role == "" {
		return ErrNotFound
	}
	return s.EndSessionsOf(ctx, role, id)
}

// LettersHomeDue lists families' passes with an address whose letter about the week before a
// Monday is not written; most at a time.
func (s *Store) LettersHomeDue(ctx context.Context, monday time.Time, most int) (out []string, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT id FROM pass
		WHERE email <> '' AND (letter_sent IS NULL OR letter_sent < ?) AND made_at < ? AND `+goesOn+`
		ORDER BY id LIMIT ?`, monday, monday, most).Scan(&out).Error
	return out, err
}

// LetterHomeWritten notes that a letter is on its way; false where it was already.
func (s *Store) LetterHomeWritten(ctx context.Context, passID string, monday time.Time) (bool, error) {
	done := s.db.WithContext(ctx).Exec(
		"UPDATE pass SET letter_sent = ? WHERE id = ? AND (letter_sent IS NULL OR letter_sent < ?)",
		monday, passID, monday)
	return done.RowsAffected > 0, done.Error
}
