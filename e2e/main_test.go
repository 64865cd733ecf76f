package e2e

import (
	"log/slog"
	"os"
	"testing"
)

// The servers within the tests say what goes wrong; six thousand requests that were answered
// would bury a test that failed.
func TestMain(m *testing.M) {
	slog.SetDefault(slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelWarn})))
	os.Exit(m.Run())
}
