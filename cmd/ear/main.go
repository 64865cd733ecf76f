// Command ear is the core's ear on the command line, without the server: small, and soon
// started for each of many recordings. Each subcommand is a file.
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := rootCommand().ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "ear:", err)
		os.Exit(1)
	}
}

func rootCommand() *cobra.Command {
	root := &cobra.Command{
		Use:              "ear",
		Short:            "What early chorus hears in a recording",
		SilenceUsage:     true,
		SilenceErrors:    true,
		PersistentPreRun: func(*cobra.Command, []string) { collectLate() },
	}
	root.AddCommand(pitchCommand(), analyzeCommand())
	return root
}
