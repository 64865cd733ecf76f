package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"

	"github.com/pressly/goose/v3"
)

// ErrNewerSchema reports a database that a newer program has migrated: an older one
// would read its tables wrongly.
var ErrNewerSchema = errors.New(
	"the database was brought up to date by a newer program: start that one, or restore a backup from before",
)

// migrator returns what brings the schema up to date.
func (s *Store) migrator() (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, fmt.Errorf("store: %w", err)
	}
	provider, err := goose.NewProvider(goose.DialectPostgres, s.SQL(), files)
	if err != nil {
		return nil, fmt.Errorf("store: migrations: %w", err)
	}
	return provider, nil
}

// versions returns the schema's version, and the newest this program knows.
func (s *Store) versions(ctx context.Context) (is, known int64, err error) {
	provider, err := s.migrator()
	if err != nil {
		return 0, 0, err
	}
	all := provider.ListSources()
	known = all[len(all)-1].Version
	if is, err = provider.GetDBVersion(ctx); err != nil {
		return 0, 0, fmt.Errorf("store: the schema's version: %w", err)
	}
	return is, known, nil
}

// Ready reports whether the database answers and has the schema of this program. An
// error says what is missing.
func (s *Store) Ready(ctx context.Context) error {
	var is int64
	err := s.db.WithContext(ctx).Raw("SELECT max(version_id) FROM goose_db_version WHERE is_applied").Scan(&is).Error
	if err != nil {
		return fmt.Errorf("the database does not answer: %w", err)
	}
	provider, err := s.migrator()
	if err != nil {
		return err
	}
	all := provider.ListSources()
	if known := all[len(all)-1].Version; is != known {
		return fmt.Errorf("the schema is version %d, this program's is %d", is, known)
	}
	return nil
}

// Waiting is what is to be done yet.
type Waiting struct {
	Takes  int     `json:"takes" doc:"to be listened to"`
	Oldest float64 `json:"oldest_s" doc:"how long the oldest of them has waited"`
	Failed int     `json:"failed" doc:"takes of the last day that could not be listened to"`
}

// WaitingTakes counts what is to be done yet.
func (s *Store) WaitingTakes(ctx context.Context) (w Waiting, err error) {
	err = s.db.WithContext(ctx).Raw(`
		SELECT count(*) AS takes, coalesce(extract(epoch FROM now() - min(received_at)), 0) AS oldest,
			(SELECT count(*) FROM take
				WHERE failure <> '' AND received_at > now() - interval '1 day') AS failed
		FROM take WHERE result = '' AND failure = ''`).Scan(&w).Error
	return w, err
}
