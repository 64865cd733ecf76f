package main

import (
	"encoding/json"
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"earlychorus/core/exercise"
	"earlychorus/core/scores"
)

func catalogueCommand() *cobra.Command {
	var format string
	c := &cobra.Command{
		Use:   "catalogue [KIND]",
		Short: "List the kinds of exercise with their parameters, units, ranges and defaults",
		Args:  cobra.MaximumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			kinds := exercise.Catalogue()
			if len(args) == 1 {
				k, err := exercise.Get(args[0])
				if err != nil {
					return err
				}
				kinds = []*exercise.Kind{k}
			}
			switch format {
			case "text":
				return listKinds(c.OutOrStdout(), kinds)
			case "json":
				enc := json.NewEncoder(c.OutOrStdout())
				enc.SetIndent("", "  ")
				return enc.Encode(kinds)
			}
			return fmt.Errorf("--format %q: choose text or json", format)
		},
	}
	c.Flags().StringVar(&format, "format", "text", "text or json")
	return c
}

func listKinds(out io.Writer, kinds []*exercise.Kind) error {
	var b strings.Builder
	var group scores.Chapter
	for _, k := range kinds {
		if k.Group != group {
			group = k.Group
			fmt.Fprintf(&b, "%s\n", strings.ToUpper(string(group)))
		}
		fmt.Fprintf(&b, "  %s (%s)\n    %s\n", k.Name, k.Key, k.Why)
		for _, p := range k.Parts {
			fmt.Fprintf(&b, "    %-14s %s; %s\n", p.Key, p.Label, p.Range())
		}
	}
	_, err := io.WriteString(out, b.String())
	return err
}
