// Package store remembers: GORM models and the queries of the server, a file
// a question. The schema is SQL, in migrations.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"log/slog"
	"time"

	"github.com/riverqueue/river/riverdriver/riverdatabasesql"
	"github.com/riverqueue/river/rivermigrate"
	"gorm.io/driver/postgres"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
	"gorm.io/gorm/schema"
)

// Store answers questions about what is remembered.
type Store struct {
	db  *gorm.DB
	dsn string
}

// DSN returns what the store was opened with.
func (s *Store) DSN() string { return s.dsn }

// ErrNotFound reports that there is no such thing, or none the asker may know of.
var ErrNotFound = errors.New("not found")

// connections is at most at once. The database's own limit is 100, and several
// machines share it.
const connections = 16

// unusedFor is how long a connection waits to be used again. The standard library's own way, to
// keep two, opened sixty a second while a class's takes were listened to.
const unusedFor = 5 * time.Minute

// quiet is for GORM, whose errors are returned and logged once, by whoever answers
// for them.
var quiet = slog.New(slog.DiscardHandler)

// Open connects to a database. It does not migrate.
func Open(dsn string) (*Store, error) {
	db, err := gorm.Open(postgres.Open(dsn), &gorm.Config{
		// Errors are returned, and logged once where they are handled.
		Logger:         logger.Default.LogMode(logger.Silent),
		NamingStrategy: schema.NamingStrategy{SingularTable: true},
	})
	if err != nil {
		return nil, fmt.Errorf("store: %w", err)
	}
	s := &Store{db, dsn}
	s.SQL().SetMaxOpenConns(connections)
	s.SQL().SetMaxIdleConns(connections)
	s.SQL().SetConnMaxIdleTime(unusedFor)
	return s, nil
}

// SQL returns the connections under the store, for the session store and the queue.
func (s *Store) SQL() *sql.DB {
	db, err := s.db.DB()
	if err != nil {
		panic(err) // only when the store was not opened
	}
	return db
}

// Close gives the connections back.
func (s *Store) Close() error { return s.SQL().Close() }

//go:embed migrations
var migrations embed.FS

// Migrate brings the schema, and the queue's, up to date. Errors: ErrNewerSchema.
func (s *Store) Migrate(ctx context.Context) error {
	provider, err := s.migrator()
	if err != nil {
		return err
	}
	is, known, err := s.versions(ctx)
	if err != nil {
		return err
	}
	if is > known {
		return fmt.Errorf("%w (its schema is version %d, this program's %d)", ErrNewerSchema, is, known)
	}
	if _, err := provider.Up(ctx); err != nil {
		return fmt.Errorf("store: migrations: %w", err)
	}
	queue, err := rivermigrate.New(riverdatabasesql.New(s.SQL()), &rivermigrate.Config{Logger: quiet})
	if err != nil {
		return fmt.Errorf("store: queue migrations: %w", err)
	}
	if _, err := queue.Migrate(ctx, rivermigrate.DirectionUp, nil); err != nil {
		return fmt.Errorf("store: queue migrations: %w", err)
	}
	return nil
}

// found turns GORM's missing record into ErrNotFound.
func found(err error) error {
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return ErrNotFound
	}
	return err
}
