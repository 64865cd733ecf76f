package postgres

import (
	"context"
	"fmt"
	"net/url"

	"github.com/jackc/pgx/v5"
)

// ensureDatabase creates the database the DSN names unless it exists.
func ensureDatabase(ctx context.Context, dsn string) error {
	admin, err := connectTo(ctx, dsn, "postgres")
	if err != nil {
		return err
	}
	defer admin.Close(ctx) //nolint:errcheck // nothing was written
	var exists bool
	if err := admin.QueryRow(
		ctx,
		"SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)",
		databaseName,
	).Scan(&exists); err != nil {
		return fmt.Errorf("postgres: %w", err)
	}
	if exists {
		return nil
	}
	if _, err := admin.Exec(ctx, "CREATE DATABASE "+databaseName); err != nil {
		return fmt.Errorf("postgres: %w", err)
	}
	return nil
}

// CopyOf creates database name as a copy of template on dsn's server and
// returns how to connect to it. Nobody may be connected to the template. Its files are copied,
// which needs PostgreSQL 15: the usual way, page by page through the log, takes twice as long.
func CopyOf(ctx context.Context, dsn, template, name string) (string, error) {
	admin, err := connectTo(ctx, dsn, "postgres")
	if err != nil {
		return "", err
	}
	defer admin.Close(ctx) //nolint:errcheck // the statement has answered
	// Names cannot be parameters of this statement; they are quoted as names.
	statement := fmt.Sprintf(
		"CREATE DATABASE %s TEMPLATE %s STRATEGY file_copy",
		pgx.Identifier{name}.Sanitize(),
		pgx.Identifier{template}.Sanitize(),
	)
	if _, err := admin.Exec(ctx, statement); err != nil {
		return "", fmt.Errorf("postgres: copy %s: %w", template, err)
	}
	return withDatabase(dsn, name)
}

// connectTo opens another database of the same server, to make or drop one from.
func connectTo(ctx context.Context, dsn, database string) (*pgx.Conn, error) {
	other, err := withDatabase(dsn, database)
	if err != nil {
		return nil, err
	}
	conn, err := pgx.Connect(ctx, other)
	if err != nil {
		return nil, fmt.Errorf("postgres: %w", err)
	}
	return conn, nil
}

// withDatabase changes the database in an address, which has to be a URL: the other
// form of address has no one place for it.
func withDatabase(dsn, name string) (string, error) {
	u, err := url.Parse(dsn)
	if err != nil {
		return "", fmt.Errorf("postgres: the database address is not a URL: %w", err)
	}
	u.Path = "/" + name
	return u.String(), nil
}
