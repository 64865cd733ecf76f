package postgres

import (
	"context"
	"os"
	"syscall"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestStartTwiceOnOneFolder(t *testing.T) {
	folder, err := os.MkdirTemp("/tmp", "earlychorus-pg")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(folder, 0o755))
	t.Cleanup(func() { _ = os.RemoveAll(folder) })
	ctx := context.Background()
	first, err := Start(ctx, Options{Folder: folder})
	require.NoError(t, err)
	run(t, first.DSN, "CREATE TABLE kept (n int)")
	close(first.stopped) // nobody starts it again
	<-first.watched
	require.NoError(t, first.cmd.Process.Kill()) // as a power cut would
	<-first.exited

	second, err := Start(ctx, Options{Folder: folder})
	require.NoError(t, err)
	defer second.Stop()
	run(t, second.DSN, "SELECT * FROM kept")
	copied, err := CopyOf(ctx, second.DSN, databaseName, "copy")
	require.NoError(t, err)
	run(t, copied, "SELECT * FROM kept")
}

// A server that dies is back at the same address, with everything, and what the one
// before it said is kept.
func TestADeadServerIsStartedAgain(t *testing.T) {
	folder, err := os.MkdirTemp("/tmp", "earlychorus-pg")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(folder, 0o755))
	t.Cleanup(func() { _ = os.RemoveAll(folder) })
	s, err := Start(context.Background(), Options{Folder: folder})
	require.NoError(t, err)
	defer s.Stop()
	run(t, s.DSN, "CREATE TABLE kept (n int)")
	for range 2 {
		s.mu.Lock()
		require.NoError(t, s.cmd.Process.Kill())
		s.mu.Unlock()
		require.Eventually(t, func() bool {
			conn, err := pgx.Connect(context.Background(), s.DSN)
			if err != nil {
				return false
			}
			defer conn.Close(context.Background()) //nolint:errcheck // test
			_, err = conn.Exec(context.Background(), "SELECT * FROM kept")
			return err == nil
		}, time.Minute, 50*time.Millisecond)
	}
	assert.FileExists(t, folder+"/log.1")
	assert.FileExists(t, folder+"/log.2")
}

func run(t *testing.T, dsn, statement string) {
	t.Helper()
	conn, err := pgx.Connect(context.Background(), dsn)
	require.NoError(t, err)
	defer conn.Close(context.Background()) //nolint:errcheck // test
	_, err = conn.Exec(context.Background(), statement)
	require.NoError(t, err)
}

func TestFolderOthersMayNotEnterIsAvoided(t *testing.T) {
	closed := t.TempDir() // its parent is private to us
	root := account{credential: &syscall.Credential{}}
	require.NoError(t, os.Chmod(closed, 0o700))
	assert.Contains(t, root.reachable(closed+"/data"), elsewhere)
	assert.Equal(t, "/tmp/data", root.reachable("/tmp/data"))
	assert.Equal(t, closed, account{}.reachable(closed), "not root: where we are told")
}
