package store

import (
	"context"
	"strings"

	"earlychorus/server/classcode"
)

// DirectorByEmail returns who signs in with this address, or ErrNotFound.
func (s *Store) DirectorByEmail(ctx context.Context, email string) (d Director, err error) {
	err = s.db.WithContext(ctx).Where("email = ?", EmailKey(email)).Take(&d).Error
	return d, found(err)
}

// EmailKey is an address as it is kept and looked up: blanks around it, of any script,
// and capital letters are no addresses of their own.
func EmailKey(email string) string { return strings.ToLower(strings.TrimSpace(email)) }

// Director returns a director, or ErrNotFound.
func (s *Store) Director(ctx context.Context, id string) (d Director, err error) {
	err = s.db.WithContext(ctx).Where("id = ?", id).Take(&d).Error
	return d, found(err)
}

// Class returns a class with its school, or ErrNotFound; whoever asks is answered, so that it
// is for the program's own work.
func (s *Store) Class(ctx context.Context, id string) (c Class, err error) {
	err = s.db.WithContext(ctx).Preload("School").Where("id = ?", id).Take(&c).Error
	return c, found(err)
}

// ClassByCode returns the class with this code, or ErrNotFound.
func (s *Store) ClassByCode(ctx context.Context, code string) (c Class, err error) {
	err = s.db.WithContext(ctx).
		Preload("School").
		Where("regexp_replace(code, '[^A-Z0-9]', '', 'g') = ? AND archived_at IS NULL", classcode.Key(code)).
		Take(&c).
		Error
	return c, found(err)
}

// ClassByFeed returns the class whose calendar feed has this token, or
// ErrNotFound.
func (s *Store) ClassByFeed(ctx context.Context, token string) (c Class, err error) {
	err = s.db.WithContext(ctx).Preload("School").Where("feed_token = ? AND archived_at IS NULL", token).Take(&c).Error
	return c, found(err)
}

const mostClasses = 50

// MostPlayers is how many a class holds; a list that would be longer is refused where it
// is made.
const MostPlayers = 1000

// Players returns a class's players by instrument and name; MostPlayers at most.
func (s *Store) Players(ctx context.Context, classID string) (out []Player, err error) {
	err = s.db.WithContext(ctx).
		Where("class_id = ? AND left_at IS NULL", classID).
		Order("first_name, last_name").
		Limit(MostPlayers).
		Find(&out).
		Error
	return out, err
}

// Player returns a player with class and school, or ErrNotFound.
func (s *Store) Player(ctx context.Context, id string) (p Player, err error) {
	err = s.db.WithContext(ctx).Preload("Class.School").Where("id = ?", id).Take(&p).Error
	return p, found(err)
}
