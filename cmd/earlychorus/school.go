package main

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"earlychorus/server/store"
)

func schoolCommand() *cobra.Command {
	c := &cobra.Command{
		Use:   "school",
		Short: "Make a school, or list them: for machines without a screen, and scripted installs",
	}
	c.AddCommand(schoolCreateCommand(), schoolListCommand())
	return c
}

func schoolCreateCommand() *cobra.Command {
	var w where
	var zone string
	c := &cobra.Command{
		Use:   "create NAME",
		Short: "Make a school; its directors are added with \"earlychorus director add\"",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			name := strings.TrimSpace(args[0])
			if name == "" {
				return fmt.Errorf("say the school's name")
			}
			if _, err := time.LoadLocation(zone); err != nil || zone == "" || zone == "Local" {
				return fmt.Errorf("--time-zone: name one such as Europe/Lisbon; it decides what today is")
			}
			return beside(c.Context(), w, func(ctx context.Context, s *store.Store) error {
				school := store.School{ID: store.NewID(), Name: name, TimeZone: zone}
				if err := s.CreateSchool(ctx, school, nil); err != nil {
					return err
				}
				fmt.Fprintf(c.OutOrStdout(), "%s is here. Its first administrator:\n", name)
				fmt.Fprintf(
					c.OutOrStdout(),
					"  earlychorus director add NAME EMAIL --school %q --administrator\n",
					name,
				)
				return nil
			})
		},
	}
	w.flags(c)
	c.Flags().StringVar(&zone, "time-zone", "", "the school's time zone, such as Europe/Lisbon")
	return c
}

func schoolListCommand() *cobra.Command {
	var w where
	c := &cobra.Command{
		Use:   "list",
		Short: "List the schools and their people",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			return beside(c.Context(), w, func(ctx context.Context, s *store.Store) error {
				schools, err := s.SchoolsNamed(ctx, "")
				if err != nil {
					return err
				}
				for _, school := range schools {
					fmt.Fprintf(c.OutOrStdout(), "%s (%s)\n", school.Name, school.TimeZone)
					if err := listPeople(ctx, c, s, school.ID); err != nil {
						return err
					}
				}
				return nil
			})
		},
	}
	w.flags(c)
	return c
}

func listPeople(ctx context.Context, c *cobra.Command, s *store.Store, schoolID string) error {
	people, err := s.PeopleOf(ctx, schoolID)
	if err != nil {
		return err
	}
	for _, p := range people {
		as := "director"
		if p.Administers {
			as = "administrator"
		}
		fmt.Fprintf(c.OutOrStdout(), "  %-24s %-32s %-14s %d classes\n", p.Name, p.Email, as, p.Classes)
	}
	return nil
}

// beside does something with the database, beside a server that may be running.
func beside(ctx context.Context, w where, do func(context.Context, *store.Store) error) error {
	r, err := openBeside(ctx, w)
	defer r.close()
	if err != nil {
		return err
	}
	return do(ctx, r.Store)
}
