// Command earlychorus is the program: the server, and what keeps it. Each subcommand is a
// file. The ear on the command line is cmd/ear.
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
	"syscall"
	_ "time/tzdata" // schools' time zones, on machines without them

	"github.com/spf13/cobra"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := rootCommand().ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "earlychorus:", err)
		os.Exit(1)
	}
}

func rootCommand() *cobra.Command {
	root := &cobra.Command{
		Use:           "earlychorus",
		Short:         "Daily warm-ups for beginning bands: assigned, recorded, heard",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.AddCommand(
		serveCommand(),
		workerCommand(),
		verifyCommand(),
		repairCommand(),
		backupCommand(),
		restoreCommand(),
		schoolCommand(),
		directorCommand(),
		demoCommand(),
		seedDistrictCommand(),
		migrateCommand(),
		sheetCommand(),
		catalogueCommand(),
		docsCommand(),
		openAPICommand(),
		questionsCommand(),
	)
	return root
}
