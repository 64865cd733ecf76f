package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"slices"

	"github.com/spf13/cobra"

	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

type analyzeOptions struct {
	instrument, score string
	format            string
	a4                float64
	firstNote         bool
}

func analyzeCommand() *cobra.Command {
	var o analyzeOptions
	c := &cobra.Command{
		Use:   "analyze FILE|FOLDER",
		Short: "Print what was heard in a WAV or FLAC file as JSON, or in a folder of them as a table",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if info, err := os.Stat(args[0]); err == nil && info.IsDir() {
				return analyzeFolder(c, args[0], o)
			}
			return analyze(c, args[0], o)
		},
	}
	c.Flags().StringVar(&o.instrument, "instrument", "", instrumentFlag)
	c.Flags().StringVar(&o.score, "score", "", "score that was played, as JSON (docs/formats.md); adds a verdict")
	c.Flags().Float64Var(
		&o.a4,
		"a4",
		float64(music.StandardA4),
		"tuning reference in Hz, 430 to 450; a score brings its own",
	)
	c.Flags().StringVar(&o.format, "format", "table", "of a folder's results: table, csv or json")
	c.Flags().BoolVar(
		&o.firstNote,
		"from-first-note",
		false,
		"line the score up with the first note heard: the recording was made without the click",
	)
	return c
}

// report is the JSON of analyze, documented in docs/formats.md.
type report struct {
	ear.Analysis
	Verdict *say.Said `json:"verdict,omitempty"`
}

func analyze(c *cobra.Command, name string, o analyzeOptions) error {
	q, err := o.question()
	if err != nil {
		return err
	}
	out, err := o.hear(c.Context(), name, q)
	if err != nil {
		return err
	}
	enc := json.NewEncoder(c.OutOrStdout())
	enc.SetIndent("", "  ")
	return enc.Encode(out)
}

// hear reads one file and asks the question of it.
func (o analyzeOptions) hear(ctx context.Context, name string, q ear.Question) (report, error) {
	sound, err := readSound(name)
	if err != nil {
		return report{}, err
	}
	heard, err := ear.Analyze(ctx, sound, q)
	if err != nil {
		return report{}, fmt.Errorf("%s: %w", name, err)
	}
	out := report{Analysis: heard}
	if q.Score != nil {
		v, err := verdict.Decide(verdict.Case{
			Case: measure.Case{
				Instrument: *q.Instrument,
				Score:      *q.Score,
				Analysis:   heard,
				FreeStart:  o.firstNote,
			},
		})
		if err != nil {
			return report{}, fmt.Errorf("%s: %w", name, err)
		}
		said := say.Teller{Instrument: *q.Instrument, Hands: instrument.UsualHands()}.Verdict(v)
		out.Verdict = &said
	}
	return out, nil
}

func (o analyzeOptions) question() (ear.Question, error) {
	if o.format != "table" && o.format != "csv" && o.format != "json" {
		return ear.Question{}, fmt.Errorf("--format %q: choose table, csv or json", o.format)
	}
	q := ear.Question{A4: music.Hertz(o.a4), Alignment: ear.Alignment{FirstNote: o.firstNote}}
	if q.A4 < music.LowestA4 || q.A4 > music.HighestA4 {
		return q, fmt.Errorf(
			"--a4 %v: choose a tuning reference from %.0f to %.0f Hz",
			o.a4,
			music.LowestA4,
			music.HighestA4,
		)
	}
	var err error
	if q.Instrument, err = chosenInstrument(o.instrument); err != nil || o.score == "" {
		return q, err
	}
	file, err := os.ReadFile(o.score)
	if err != nil {
		return q, err
	}
	q.Score = &scores.Score{}
	if err := json.Unmarshal(file, q.Score); err != nil {
		return q, fmt.Errorf("%s: this is not a score: %w", o.score, err)
	}
	if q.Score.TempoBPM <= 0 || q.Score.A4Hz <= 0 || !heardIn(*q.Score) {
		return q, errors.New(o.score + ": a score needs tempo_bpm, a4_hz and at least one segment to play, buzz, " +
			"sing or blow")
	}
	if q.Score.Rules == nil {
		if q.Score.Limits == (scores.Limits{}) {
			q.Score.Limits, q.Score.HardLimits = q.Score.Stage.Limits(), q.Score.Stage.Easier().Limits()
		}
		q.Score.Limits = q.Score.Limits.Filled(q.Score.Stage.Limits())
		q.Score.HardLimits = q.Score.HardLimits.Filled(q.Score.Stage.Easier().Limits())
		q.Score.Rules = usualRules(*q.Score)
	}
	if q.Instrument == nil {
		i, err := instrument.Get(q.Score.Instrument)
		if err != nil {
			return q, fmt.Errorf("%s: %w", o.score, err)
		}
		q.Instrument = &i
	}
	return q, nil
}

// heardIn reports whether there is anything in a score to listen to: a step that is
// only ticked has nothing.
func heardIn(s scores.Score) bool {
	return slices.ContainsFunc(s.Segments, func(seg scores.Segment) bool { return seg.Phase.Active() })
}

// airWithin is how far, in beats, air alone may end from what is asked.
const airWithin = 0.5

// usualRules are what a score that brings none is judged by.
func usualRules(s scores.Score) []scores.Rule {
	if len(s.Targets()) > 0 {
		return measure.ToneRules(s.Limits)
	}
	return []scores.Rule{measure.AirBursts.Within(0), measure.AirLength.Within(airWithin)}
}
