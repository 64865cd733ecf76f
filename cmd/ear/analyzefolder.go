package main

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"earlychorus/core/ear"
)

// fileReport is one recording of a folder; Problem says why it could not be
// heard.
type fileReport struct {
	File    string  `json:"file"`
	Problem string  `json:"problem,omitempty"`
	Report  *report `json:"analysis,omitempty"`
}

// analyzeFolder hears every WAV and FLAC file below a folder, telling on
// standard error how far it is: a table, or CSV, or JSON.
func analyzeFolder(c *cobra.Command, folder string, o analyzeOptions) error {
	files, err := soundsBelow(folder)
	if err != nil {
		return err
	}
	if len(files) == 0 {
		return fmt.Errorf("%s: there is no WAV or FLAC file below it", folder)
	}
	q, err := o.question()
	if err != nil {
		return err
	}
	var all []fileReport
	for n, name := range files {
		fmt.Fprintf(c.ErrOrStderr(), "\r%d of %d  %-40.40s", n+1, len(files), name)
		r, err := o.hear(c.Context(), filepath.Join(folder, name), q)
		if c.Context().Err() != nil {
			return c.Context().Err()
		}
		one := fileReport{File: name, Report: &r}
		if err != nil {
			one = fileReport{File: name, Problem: err.Error()}
		}
		all = append(all, one)
	}
	fmt.Fprintln(c.ErrOrStderr())
	switch o.format {
	case "json":
		enc := json.NewEncoder(c.OutOrStdout())
		enc.SetIndent("", "  ")
		return enc.Encode(all)
	case "csv":
		return csv.NewWriter(c.OutOrStdout()).WriteAll(tableOf(all))
	}
	return writeTable(c.OutOrStdout(), tableOf(all))
}

func soundsBelow(folder string) (out []string, err error) {
	err = filepath.WalkDir(folder, func(path string, d os.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		if kind := strings.ToLower(filepath.Ext(path)); kind == ".wav" || kind == ".flac" {
			name, err := filepath.Rel(folder, path)
			if err != nil {
				return err
			}
			out = append(out, name)
		}
		return nil
	})
	slices.Sort(out)
	return out, err
}

// tableOf has a heading and a row a note; a file without one has one row.
func tableOf(all []fileReport) [][]string {
	rows := [][]string{
		{
			"file",
			"note",
			"midi",
			"onset_s",
			"held_s",
			"centre_cents",
			"steadiness_cents",
			"level_db",
			"events",
			"faults",
			"result",
			"account",
			"sentence",
		},
	}
	for _, f := range all {
		if f.Problem != "" {
			rows = append(rows, []string{f.File, "", "", "", "", "", "", "", "", f.Problem, "", "", ""})
			continue
		}
		result, sentence := "", ""
		if f.Report.Verdict != nil {
			result, sentence = string(f.Report.Verdict.Result), f.Report.Verdict.Sentence
		}
		faults := joined(f.Report.Recording.Faults)
		if len(f.Report.Notes) == 0 {
			rows = append(rows, []string{f.File, "", "", "", "", "", "", "", "", faults, result, "", sentence})
		}
		for n, note := range f.Report.Notes {
			row := make([]string, len(rows[0]))
			row[0], row[1] = f.File, strconv.Itoa(n+1)
			row[8], row[9], row[10] = eventsOf(f.Report.Events, n), faults, result
			row[12] = sentence
			if n < len(f.Report.Accounts) {
				row[11] = string(f.Report.Accounts[n].Kind)
			}
			if note.Played {
				copy(row[2:], []string{
					strconv.Itoa(int(note.MIDI)),
					number(float64(note.Onset), 2),
					number(float64(note.Sounding), 2),
					number(float64(note.Centre), 1),
					number(float64(note.Steadiness), 1),
					number(float64(note.Level), 1),
				})
			}
			rows = append(rows, row)
		}
	}
	return rows
}

func number(x float64, digits int) string { return strconv.FormatFloat(x, 'f', digits, 64) }

func eventsOf(events []ear.Event, note int) string {
	var kinds []ear.EventKind
	for _, e := range events {
		if e.Note == note {
			kinds = append(kinds, e.Kind)
		}
	}
	return joined(kinds)
}

func joined[T ~string](words []T) string {
	out := make([]string, len(words))
	for n, w := range words {
		out[n] = string(w)
	}
	return strings.Join(out, " ")
}

func writeTable(w io.Writer, rows [][]string) error {
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', 0)
	for _, r := range rows {
		fmt.Fprintln(t, strings.Join(r, "\t"))
	}
	return t.Flush()
}
