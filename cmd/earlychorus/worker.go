package main

import (
	"context"
	"fmt"

	"github.com/spf13/cobra"
)

func workerCommand() *cobra.Command {
	var w where
	var to reach
	var watch string
	c := &cobra.Command{
		Use:   "worker",
		Short: "Listen to takes and keep things in order, without serving pages",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			return unlessStopped(c.Context(), work(c.Context(), w, to, watch))
		},
	}
	w.flags(c)
	to.flags(c)
	watchFlag(c, &watch)
	return c
}

// work runs jobs until it is stopped.
func work(ctx context.Context, w where, to reach, watch string) error {
	if w.database == "" {
		return fmt.Errorf("--database: a worker works beside a server, on its PostgreSQL")
	}
	r, err := open(ctx, w)
	defer r.close()
	if err != nil {
		return err
	}
	if err := r.watched(watch); err != nil {
		return err
	}
	if err := to.apply(r); err != nil {
		return err
	}
	if err := r.work(); err != nil {
		return err
	}
	fmt.Println("Listening to takes. Ctrl-C stops it.")
	<-ctx.Done()
	return nil
}
