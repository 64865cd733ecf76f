package store

import "context"

// SaveKnown keeps which notes a class knows.
func (s *Store) SaveKnown(ctx context.Context, c Class) error {
	return s.db.WithContext(ctx).Model(&c).Select("Known").Updates(&c).Error
}

// SaveKnows keeps how a player differs from what the class knows.
func (s *Store) SaveKnows(ctx context.Context, p Player) error {
	return s.db.WithContext(ctx).Model(&p).Select("Knows").Updates(&p).Error
}
