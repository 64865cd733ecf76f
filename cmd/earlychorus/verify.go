package main

import (
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"earlychorus/server/keeping"
)

// mostNamed is faults that are listed one by one.
const mostNamed = 50

func verifyCommand() *cobra.Command {
	var w where
	c := &cobra.Command{
		Use:   "verify",
		Short: "Check that every acknowledged take has its sound, whole, and is listened to",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			r, err := openBeside(c.Context(), w)
			defer r.close()
			if err != nil {
				return err
			}
			out := c.OutOrStdout()
			is, err := keeping.Verify(c.Context(), r.Store, r.parts.Recordings, time.Now(), progress("sounds"))
			if err != nil {
				return err
			}
			for n, f := range is.Faults {
				if n == mostNamed {
					fmt.Fprintf(out, "and %d more\n", len(is.Faults)-n)
					break
				}
				what := "damaged"
				if f.Missing {
					what = "missing"
				}
				fmt.Fprintf(out, "%s %s: the sound is %s\n", f.Of, f.ID, what)
			}
			fmt.Fprintf(
				out,
				"%d sounds looked at: %d missing or damaged. %d takes nobody is listening to. %d files of nobody.\n",
				is.Sounds, len(is.Faults), is.Unheard, is.Orphans,
			)
			if len(is.Faults) > 0 || is.Unheard > 0 {
				return fmt.Errorf("not all is well: \"earlychorus repair\" queues what was never heard")
			}
			return nil
		},
	}
	w.flags(c)
	return c
}

func repairCommand() *cobra.Command {
	var w where
	c := &cobra.Command{
		Use:   "repair",
		Short: "Queue takes that were never listened to although their sounds are here",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			r, err := openBeside(c.Context(), w)
			defer r.close()
			if err != nil {
				return err
			}
			unheard, err := keeping.QueueUnheard(c.Context(), r.Store, r.Queue(), time.Now())
			if err != nil {
				return err
			}
			failed, err := keeping.QueueFailed(c.Context(), r.Store, r.parts.Recordings, r.Queue())
			if err != nil {
				return err
			}
			fmt.Fprintf(
				c.OutOrStdout(),
				"%d takes that nobody was listening to and %d that had failed are queued for the server.\n",
				unheard,
				failed,
			)
			return nil
		},
	}
	w.flags(c)
	return c
}
