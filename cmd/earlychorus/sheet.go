package main

import (
	"encoding/json"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/notation"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
)

type sheetOptions struct {
	plan, instrument, variant, day, at, format, out string
	stage                                           int
}

func sheetCommand() *cobra.Command {
	var o sheetOptions
	c := &cobra.Command{
		Use:   "sheet",
		Short: "Print a day of a plan as one instrument reads it",
		Long: "Print a day of a plan as one instrument reads it: as text, MusicXML, a MIDI file or JSON. No " +
			"database is needed.",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return printSheet(c, o) },
	}
	c.Flags().StringVar(&o.plan, "plan", "demo", "\"demo\", or a file with a plan as JSON (docs/formats.md)")
	c.Flags().StringVar(&o.instrument, "instrument", "", "whose sheet it is, such as clarinet or alto-sax")
	c.Flags().StringVar(&o.variant, "variant", "", "how the instrument is built, such as 4-valve")
	c.Flags().StringVar(&o.day, "day", "monday", "day of the week")
	c.Flags().StringVar(&o.at, "at", "class", "class or home")
	c.Flags().IntVar(&o.stage, "stage", 2, "how far the player has come, 1 to 4")
	c.Flags().StringVar(&o.format, "format", "text", "text, musicxml, midi or json")
	c.Flags().StringVar(&o.out, "out", "", "file to write; standard output when left out")
	return c
}

func printSheet(c *cobra.Command, o sheetOptions) error {
	write, ok := sheetWriters[o.format]
	if !ok {
		return fmt.Errorf("--format %q: choose text, musicxml, midi or json", o.format)
	}
	s, err := o.sheet()
	if err != nil {
		return err
	}
	out := c.OutOrStdout()
	if o.out == "" {
		return write(out, s)
	}
	file, err := os.Create(o.out)
	if err != nil {
		return err
	}
	if err := write(file, s); err != nil {
		_ = file.Close() // the first error is told
		return err
	}
	return file.Close()
}

var sheetWriters = map[string]func(io.Writer, notation.Sheet) error{
	"text": notation.WriteText, "musicxml": notation.WriteMusicXML, "midi": notation.WriteMIDI,
	"json": func(out io.Writer, s notation.Sheet) error {
		enc := json.NewEncoder(out)
		enc.SetIndent("", "  ")
		return enc.Encode(s)
	},
}

var dayNames = []string{"monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"}

func (o sheetOptions) sheet() (notation.Sheet, error) {
	p, err := readPlan(o.plan)
	if err != nil {
		return notation.Sheet{}, err
	}
	if o.instrument == "" {
		return notation.Sheet{}, fmt.Errorf("--instrument: choose one of %s", strings.Join(instrument.Keys(), ", "))
	}
	i, err := instrument.Get(o.instrument)
	if err != nil {
		return notation.Sheet{}, fmt.Errorf(
			"--instrument %q: choose one of %s",
			o.instrument,
			strings.Join(instrument.Keys(), ", "),
		)
	}
	if i, err = i.As(o.variant); err != nil {
		return notation.Sheet{}, fmt.Errorf("--variant: %w", err)
	}
	day := slices.Index(dayNames, strings.ToLower(o.day))
	if day < 0 {
		return notation.Sheet{}, fmt.Errorf("--day %q: choose one of %s", o.day, strings.Join(dayNames, ", "))
	}
	at := plan.Place(o.at)
	if at != plan.InClass && at != plan.AtHome {
		return notation.Sheet{}, fmt.Errorf("--at %q: choose class or home", o.at)
	}
	if o.stage < 1 || o.stage > 4 {
		return notation.Sheet{}, fmt.Errorf("--stage %d: choose 1 to 4", o.stage)
	}
	who := exercise.Player{Instrument: i, Stage: scores.Stage(o.stage)}
	return notation.SheetOf(p, plan.Day(day), at, who, exercise.StandardConventions())
}

// readPlan reads a plan's file, or gives the demo's.
func readPlan(name string) (plan.Plan, error) {
	if name == "demo" {
		return plan.DemoWeek(), nil
	}
	raw, err := os.ReadFile(name)
	if err != nil {
		return plan.Plan{}, err
	}
	var p plan.Plan
	if err := json.Unmarshal(raw, &p); err != nil {
		return p, fmt.Errorf("%s: %w", name, err)
	}
	if err := p.Check(); err != nil {
		return p, fmt.Errorf("%s: %w", name, err)
	}
	return p, nil
}
