// Package storetest gives tests a database each, copied from a migrated
// template on a server that cmd/testdb runs.
package storetest

import (
	"context"
	"os"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"earlychorus/server/postgres"
	"earlychorus/server/store"
)

// Variable is the environment variable that names the test server.
const Variable = "EARLYCHORUS_TEST_DATABASE"

// template is a database with every migration run, copied for each test: a copy
// is many times quicker than the migrations.
const template = "migrated"

// PrepareTemplate makes the database that every test's is a copy of.
func PrepareTemplate(ctx context.Context, dsn string) error {
	target, err := postgres.CopyOf(ctx, dsn, "template1", template)
	if err != nil {
		return err
	}
	s, err := store.Open(target)
	if err != nil {
		return err
	}
	defer s.Close() //nolint:errcheck // closed so that it can be copied
	return s.Migrate(ctx)
}

// DSN returns how to connect to an empty, migrated database of the test's own.
func DSN(t testing.TB) string {
	t.Helper()
	server := os.Getenv(Variable)
	if server == "" {
		t.Fatal("this test needs PostgreSQL: run ./test, or go run ./cmd/testdb go test ./...")
	}
	name := "test_" + strings.ReplaceAll(uuid.NewString(), "-", "")
	dsn, err := postgres.CopyOf(context.Background(), server, template, name)
	require.NoError(t, err)
	return dsn
}

// Open returns a store on a database of the test's own.
func Open(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(DSN(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}
