package store

import (
	"context"
	"time"
)

// Budget is how many wrong tries are free, and what the ones after them cost: First,
// then twice as long each time, Most at most. A count that nothing was added to for as
// long as Forget begins anew.
type Budget struct {
	Free                int
	First, Most, Forget time.Duration
}

// CountTry counts a try, unless it comes too early: then wait says by how much. Tries at
// once are counted one after another.
func (s *Store) CountTry(ctx context.Context, key string, b Budget, now time.Time) (wait time.Duration, err error) {
	const due = `guess.last + least(@most, @first * power(2, least(guess.failures - @free, 20))) * interval '1 second'`
	about := map[string]any{
		"key": key, "now": now.UTC(), "free": b.Free, "first": b.First.Seconds(), "most": b.Most.Seconds(),
		"forget": now.Add(-b.Forget).UTC(),
	}
	db := s.db.WithContext(ctx)
	done := db.Exec(`
		INSERT INTO guess (key, failures, last) VALUES (@key, 1, @now)
		ON CONFLICT (key) DO UPDATE
			SET failures = CASE WHEN guess.last < @forget THEN 1 ELSE guess.failures + 1 END, last = @now
			WHERE guess.last < @forget OR guess.failures < @free OR `+due+` <= @now`, about)
	if done.Error != nil || done.RowsAffected == 1 {
		return 0, done.Error
	}
	var seconds float64
	err = db.Raw("SELECT extract(epoch FROM "+due+" - @now) FROM guess WHERE key = @key", about).Scan(&seconds).Error
	return max(time.Second, time.Duration(seconds*float64(time.Second))), err
}

// GiveBackTry takes tries back that turned out right.
func (s *Store) GiveBackTry(ctx context.Context, keys []string) error {
	return s.db.WithContext(ctx).
		Exec("UPDATE guess SET failures = greatest(0, failures - 1) WHERE key IN ?", keys).
		Error
}

// ForgetTries forgets the wrong tries at players, from whatever device.
func (s *Store) ForgetTries(ctx context.Context, playerIDs []string) error {
	for _, id := range playerIDs {
		err := s.db.WithContext(ctx).
			Exec("DELETE FROM guess WHERE key = ? OR key LIKE ?", "player:"+id, "player:"+id+"/%").Error
		if err != nil {
			return err
		}
	}
	return nil
}

// TriesAt returns how many wrong tries count for a key, if there was one since.
func (s *Store) TriesAt(ctx context.Context, key string, since time.Time) (failures int, err error) {
	err = s.db.WithContext(ctx).
		Raw("SELECT coalesce(max(failures), 0) FROM guess WHERE key = ? AND last >= ?", key, since).
		Scan(&failures).Error
	return failures, err
}

// KnowsDevice reports whether a device has signed somebody in before.
func (s *Store) KnowsDevice(ctx context.Context, device, subject string) (bool, error) {
	var rows int64
	err := s.db.WithContext(ctx).
		Raw("SELECT count(*) FROM known_device WHERE device = ? AND subject = ?", device, subject).Scan(&rows).Error
	return rows > 0, err
}

// KnowDevice remembers that a device has signed somebody in.
func (s *Store) KnowDevice(ctx context.Context, device, subject string, at time.Time) error {
	return s.db.WithContext(ctx).Exec(`
		INSERT INTO known_device (device, subject, seen) VALUES (?, ?, ?)
		ON CONFLICT (device, subject) DO UPDATE SET seen = excluded.seen`, device, subject, at.UTC()).Error
}

// ForgetGuesses forgets counts and devices that nothing was heard of for long.
func (s *Store) ForgetGuesses(ctx context.Context, now time.Time) error {
	db := s.db.WithContext(ctx)
	if err := db.Exec("DELETE FROM guess WHERE last < ?", now.AddDate(0, 0, -2)).Error; err != nil {
		return err
	}
	return db.Exec("DELETE FROM known_device WHERE seen < ?", now.AddDate(-1, 0, 0)).Error
}
