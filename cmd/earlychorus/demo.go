package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"earlychorus/server/demo"
)

func demoCommand() *cobra.Command {
	var w where
	var signIns bool
	c := &cobra.Command{
		Use:   "demo",
		Short: "Fill an empty database with the demo class, or list its sign-ins",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if signIns {
				out := c.OutOrStdout()
				fmt.Fprintf(
					out,
					"Directors  %s and %s, password %s\nClass code  %s\n",
					demo.DirectorEmail,
					demo.SecondEmail,
					demo.DirectorPassword,
					demo.ClassCode,
				)
				fmt.Fprintf(
					out,
					"Substitute  /pass, with the words %s (for a day after the demo begins)\n",
					demo.SubstitutesCode,
				)
				for _, s := range demo.SignIns() {
					fmt.Fprintf(out, "%-14s %-14s PIN %s\n", s.Name, s.Instrument, s.PIN)
				}
				return nil
			}
			r, err := open(c.Context(), w)
			defer r.close()
			if err != nil {
				return err
			}
			if err := r.work(); err != nil {
				return err
			}
			seeder := r.seeder()
			if here, err := seeder.Begin(c.Context()); err != nil || !here {
				return err
			}
			return seeder.Fill(c.Context())
		},
	}
	w.flags(c)
	c.Flags().BoolVar(&signIns, "sign-ins", false, "list how the demo's people sign in")
	return c
}
