// Package figures keeps what the benches measured beside its goals, all on one page: each
// bench puts its own section, and the page is written anew.
package figures

import (
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"runtime"
	"slices"
	"strings"
	"time"
)

// Figure is one thing that was measured.
type Figure struct {
	What     string
	Measured string
	Goal     string // empty where there is none
	Missed   bool
}

// section is what one bench measured, and when.
type section struct {
	Name    string
	On      string
	Machine string
	Figures []Figure
}

// order is that of the page; each section's own page has the details.
var order = []struct{ name, title, details string }{
	{"ear", "The ear", "EAR.md"},
	{"lessons", "What is concluded", "LESSONS.md"},
	{"wait", "From the end of a take to its word", "WAIT.md"},
	{"frames", "Drawing while a take is recorded", "WAIT.md"},
	{"load", "First load", "LOAD.md"},
	{"bell", "The bell", "BELL.md"},
	{"bells", "Ten bells at once, nobody listening", "BELLS.md"},
	{"board", "A board of 70 players and 8 steps", "DISTRICT.md"},
	{"district", "A district's year", "DISTRICT.md"},
	{"demo", "The demo", ""},
}

const (
	kept = "benches/figures/figures.json"
	page = "benches/RESULTS.md"
)

// Put keeps a bench's figures in place of its last ones, and writes the page. It is called
// in the project's root.
func Put(name string, all []Figure) error {
	var sections []section
	raw, err := os.ReadFile(kept)
	switch {
	case errors.Is(err, fs.ErrNotExist):
	case err != nil:
		return err
	default:
		if err := json.Unmarshal(raw, &sections); err != nil {
			return fmt.Errorf("%s: %w", kept, err)
		}
	}
	sections = slices.DeleteFunc(sections, func(s section) bool { return s.Name == name })
	sections = append(sections, section{
		Name:    name,
		On:      time.Now().Format(time.DateOnly),
		Machine: fmt.Sprintf("%s/%s, %d processors", runtime.GOOS, runtime.GOARCH, runtime.NumCPU()),
		Figures: all,
	})
	if raw, err = json.MarshalIndent(sections, "", "  "); err != nil {
		return err
	}
	if err := os.WriteFile(kept, append(raw, '\n'), 0o644); err != nil {
		return err
	}
	return os.WriteFile(page, []byte(write(sections)), 0o644)
}

// write lays the sections out.
func write(sections []section) string {
	var t strings.Builder
	t.WriteString("# Measured, beside the goals\n\nWritten by `./bench`. A figure in bold misses its goal.\n")
	for _, o := range order {
		n := slices.IndexFunc(sections, func(s section) bool { return s.Name == o.name })
		if n < 0 {
			continue
		}
		s := sections[n]
		fmt.Fprintf(&t, "\n## %s\n\n%s, %s.", o.title, s.On, s.Machine)
		if o.details != "" {
			fmt.Fprintf(&t, " [More](%s).", o.details)
		}
		t.WriteString("\n\n| | measured | goal |\n| --- | --- | --- |\n")
		for _, f := range s.Figures {
			measured := f.Measured
			if f.Missed {
				measured = "**" + measured + "**"
			}
			fmt.Fprintf(&t, "| %s | %s | %s |\n", f.What, measured, f.Goal)
		}
	}
	return t.String()
}

// AtMost is a figure whose goal is a limit, both written with a format of one number.
func AtMost(what, format string, measured, goal float64) Figure {
	return Figure{
		What:     what,
		Measured: fmt.Sprintf(format, measured),
		Goal:     "≤ " + fmt.Sprintf(format, goal),
		Missed:   measured > goal,
	}
}

// AtLeast is a figure that should not be less.
func AtLeast(what, format string, measured, goal float64) Figure {
	return Figure{
		What:     what,
		Measured: fmt.Sprintf(format, measured),
		Goal:     "≥ " + fmt.Sprintf(format, goal),
		Missed:   measured < goal,
	}
}

// Plain is a figure without a goal.
func Plain(what, format string, measured ...any) Figure {
	return Figure{What: what, Measured: fmt.Sprintf(format, measured...)}
}
