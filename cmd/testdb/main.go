// Command testdb runs a command beside a throwaway PostgreSQL, which the tests that
// it starts share: testdb go test ./... It is a command of its own so that what
// only tests need stays out of the program.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"os/signal"
	"syscall"

	"earlychorus/server/postgres"
	"earlychorus/server/store/storetest"
)

func main() {
	if len(os.Args) < 2 {
		fmt.Fprintln(os.Stderr, "usage: testdb COMMAND [ARG ...]")
		os.Exit(2)
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	err := run(ctx, os.Args[1:])
	stop()
	var ended *exec.ExitError
	switch {
	case errors.As(err, &ended): // the command has said why
		os.Exit(max(1, ended.ExitCode()))
	case err != nil:
		fmt.Fprintln(os.Stderr, "testdb:", err)
		os.Exit(1)
	}
}

func run(ctx context.Context, command []string) error {
	folder, err := os.MkdirTemp("/tmp", "earlychorus-test-") // short enough for a socket's path
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // the next boot clears /tmp
	if err := os.Chmod(folder, 0o755); err != nil {
		return err
	}
	server, err := postgres.Start(ctx, postgres.Options{Folder: folder, Throwaway: true})
	if err != nil {
		return err
	}
	defer server.Stop()
	if err := storetest.PrepareTemplate(ctx, server.DSN); err != nil {
		return err
	}
	c := exec.CommandContext(ctx, command[0], command[1:]...)
	c.Env = append(os.Environ(), storetest.Variable+"="+server.DSN)
	c.Stdin, c.Stdout, c.Stderr = os.Stdin, os.Stdout, os.Stderr
	return c.Run()
}
