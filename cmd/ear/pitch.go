package main

import (
	"encoding/csv"

	"github.com/spf13/cobra"

	"earlychorus/core/contour"
	"earlychorus/core/ear"
)

func pitchCommand() *cobra.Command {
	var key string
	c := &cobra.Command{
		Use:   "pitch FILE",
		Short: "Print the pitch of a WAV or FLAC file as CSV, a row every 10 ms",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			i, err := chosenInstrument(key)
			if err != nil {
				return err
			}
			sound, err := readSound(args[0])
			if err != nil {
				return err
			}
			listener := contour.OpenEar
			if i != nil {
				listener = ear.For(*i)
			}
			heard, err := listener.Track(c.Context(), sound)
			if err != nil {
				return err
			}
			return csv.NewWriter(c.OutOrStdout()).WriteAll(heard.Rows())
		},
	}
	c.Flags().StringVar(&key, "instrument", "", instrumentFlag)
	return c
}
