package main

import (
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"earlychorus/server/district"
	"earlychorus/server/postgres"
	"earlychorus/server/store"
)

// seedDistrictCommand fills an empty database with a year of a district, to be
// measured against (benches/district).
func seedDistrictCommand() *cobra.Command {
	size, folder := district.Year, ""
	c := &cobra.Command{
		Use:   "seed-district",
		Short: "Fill an empty database with a year of an invented district, to measure against",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			server, err := postgres.Start(c.Context(), postgres.Options{Folder: folder})
			if err != nil {
				return err
			}
			defer server.Stop()
			s, err := store.Open(server.DSN)
			if err != nil {
				return err
			}
			defer s.Close() //nolint:errcheck // ending
			if err := s.Migrate(c.Context()); err != nil {
				return err
			}
			began := time.Now()
			say := func(text string, args ...any) {
				fmt.Fprintf(c.ErrOrStderr(), "%6.0f s  %s\n", time.Since(began).Seconds(), fmt.Sprintf(text, args...))
			}
			say("%d takes", size.Takes())
			return district.Seed(c.Context(), server.DSN, size, time.Now(), say)
		},
	}
	c.Flags().StringVar(&folder, "folder", "district", "where the database is kept")
	c.Flags().IntVar(&size.Classes, "classes", size.Classes, "classes")
	c.Flags().IntVar(&size.Players, "players", size.Players, "players of each class")
	c.Flags().IntVar(&size.Weeks, "weeks", size.Weeks, "school weeks")
	return c
}
