package main

import (
	"fmt"

	"github.com/spf13/cobra"
)

func migrateCommand() *cobra.Command {
	var w where
	c := &cobra.Command{
		Use:   "migrate",
		Short: "Bring the database's schema up to date",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			r, err := open(c.Context(), w)
			defer r.close()
			if err == nil {
				fmt.Println("The schema is up to date.")
			}
			return err
		},
	}
	w.flags(c)
	return c
}
