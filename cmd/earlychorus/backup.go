package main

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"earlychorus/server/backup"
	"earlychorus/server/recordings"
)

// place opens where backups are: a folder, or a URL as --recordings has it.
func place(name string) (*recordings.Store, error) {
	if strings.Contains(name, "://") {
		return recordings.At(name)
	}
	return recordings.InFolder(name)
}

func backupCommand() *cobra.Command {
	var w where
	var keep int
	c := &cobra.Command{
		Use:   "backup PLACE",
		Short: "Copy the database and every recording to a folder or a bucket, while the server runs or not",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			r, err := openBeside(c.Context(), w)
			defer r.close()
			if err != nil {
				return err
			}
			to, err := place(args[0])
			if err != nil {
				return err
			}
			defer to.Close() //nolint:errcheck // everything is kept
			made, err := backup.Make(c.Context(), r.Store, r.parts.Recordings, to, time.Now(), progress("sounds"))
			if err != nil {
				return err
			}
			out := c.OutOrStdout()
			fmt.Fprintf(
				out,
				"Backup %s: the database and %d sounds, %d of them new here.\n",
				made.Name,
				made.Sounds,
				made.Copied,
			)
			if keep > 0 {
				dropped, err := backup.Rotate(c.Context(), to, keep)
				if err != nil {
					return err
				}
				fmt.Fprintf(out, "%d older backups let go of.\n", dropped)
			}
			if len(made.Gone) > 0 {
				return fmt.Errorf("%d sounds were missing: \"earlychorus verify\" names them", len(made.Gone))
			}
			return nil
		},
	}
	w.flags(c)
	c.Flags().IntVar(&keep, "keep", 0, "how many backups to keep in the place; 0 keeps all")
	return c
}

func restoreCommand() *cobra.Command {
	var w where
	var name string
	c := &cobra.Command{
		Use:   "restore PLACE",
		Short: "Bring a backup back into an empty database and an empty folder or bucket of recordings",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			return restore(c.Context(), c, w, args[0], name)
		},
	}
	w.flags(c)
	c.Flags().StringVar(&name, "at", "", "which backup, by its moment; the newest otherwise")
	return c
}

// restore brings a backup back into a bare database: not even its tables may be there.
func restore(ctx context.Context, c *cobra.Command, w where, from, name string) error {
	r, err := connect(ctx, w)
	defer r.close()
	if err != nil {
		return err
	}
	at, err := place(from)
	if err != nil {
		return err
	}
	r.onClose(func() { _ = at.Close() })
	back, err := backup.Restore(ctx, r.parts.Store, r.parts.Recordings, at, name, progress("sounds"))
	if err != nil {
		return err
	}
	if err := r.parts.Store.Migrate(ctx); err != nil {
		return err
	}
	fmt.Fprintf(
		c.OutOrStdout(),
		"Backup %s is back, with %d sounds. Everybody signs in again.\n",
		back.Name,
		back.Sounds,
	)
	return nil
}
