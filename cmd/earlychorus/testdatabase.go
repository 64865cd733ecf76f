package main

import (
	"os"
	"os/exec"

	"github.com/spf13/cobra"

	"earlychorus/server/postgres"
	"earlychorus/server/store/storetest"
)

// testDatabaseCommand runs a command beside a throwaway PostgreSQL, for tests.
func testDatabaseCommand() *cobra.Command {
	return &cobra.Command{
		Use:    "testdb -- COMMAND",
		Short:  "Run a command beside a throwaway PostgreSQL",
		Args:   cobra.MinimumNArgs(1),
		Hidden: true,
		RunE: func(c *cobra.Command, args []string) error {
			folder, err := os.MkdirTemp("/tmp", "earlychorus-test-")
			if err != nil {
				return err
			}
			defer os.RemoveAll(folder) //nolint:errcheck // the next boot clears /tmp
			if err := os.Chmod(folder, 0o755); err != nil {
				return err
			}
			server, err := postgres.Start(c.Context(), postgres.Options{Folder: folder, Throwaway: true})
			if err != nil {
				return err
			}
			defer server.Stop()
			if err := storetest.PrepareTemplate(c.Context(), server.DSN); err != nil {
				return err
			}
			run := exec.CommandContext(c.Context(), args[0], args[1:]...)
			run.Env = append(os.Environ(), storetest.Variable+"="+server.DSN)
			run.Stdin, run.Stdout, run.Stderr = os.Stdin, os.Stdout, os.Stderr
			return run.Run()
		},
	}
}
