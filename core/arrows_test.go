// Package core_test guards the house: which part of the core may import what.
package core_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const ours = "earlychorus/core/"

// allowed names, for each folder, the folders of ours it may import. The
// arrows go one way; docs/architecture.md draws them.
var allowed = map[string][]string{
	"words":          nil,
	"fmt":            {"fmt/small"},
	"fmt/small":      nil,
	"json":           {"json/small"},
	"json/small":     nil,
	"music":          nil,
	"instrument":     {"music"},
	"scores":         {"music", "instrument"},
	"audio":          nil,
	"audio/wav":      {"audio"},
	"audio/flac":     {"audio"},
	"dsp":            nil,
	"contour":        {"audio", "dsp", "music"}, // and so it is small enough for the browser
	"contour/packed": {"contour", "music"},
	"ear":            {"audio", "dsp", "music", "instrument", "scores", "contour", "explain"},
	"explain":        {"music", "instrument", "scores"},
	"meter":          {"music", "scores"},
	"measure":        {"dsp", "music", "instrument", "scores", "explain", "ear", "meter"},
	"exercise":       {"music", "instrument", "scores", "measure"}, // a kind says by what it is judged
	"verdict":        {"instrument", "scores", "explain", "ear", "measure", "exercise"},
	"say": {
		"music",
		"instrument",
		"scores",
		"explain",
		"ear",
		"measure",
		"exercise",
		"verdict",
		"tone",
	},
	"ribbon":  {"dsp", "music", "instrument", "scores", "contour", "ear", "explain", "say"},
	"outcome": {"audio", "music", "instrument", "scores", "ear", "meter", "measure", "exercise", "verdict", "ribbon"},
	"ladder":  {"music", "verdict"},
	"ask": {
		"audio",
		"chart",
		"music",
		"instrument",
		"scores",
		"ear",
		"meter",
		"exercise",
		"ladder",
		"outcome",
		"practice",
		"ribbon",
		"say",
		"synth",
		"verdict",
	},
	"say/several": {"measure"},
	"plan": {
		"music",
		"instrument",
		"scores",
		"measure",
		"exercise",
		"ladder",
		"verdict",
		"playtest",
		"say/several",
	},
	"practice": {"music", "instrument", "scores", "measure", "exercise", "ear", "ladder", "plan", "task"},
	"bars":     {"music", "scores"},
	"task":     {"music", "scores", "bars"},
	"progress": {"dsp", "music", "ear", "measure", "verdict", "say/several"},
	"tone":     {"dsp", "music", "progress"},
	"engrave":  {"music", "scores", "bars"},
	"chart":    {"music", "instrument", "scores", "exercise"},
	"example":  {"instrument", "scores", "measure", "exercise", "verdict", "plan", "say"},
	"known":    {"music", "instrument", "exercise"},
	"playtest": {"exercise", "verdict"},
	"roster":   {"instrument", "scores"},
	"consent":  {},
	"notation": {"music", "instrument", "scores", "bars", "exercise", "plan", "task"},
	"synth":    {"audio", "dsp", "music", "instrument", "scores", "measure"}, // dsp for its transform
}

// everywhere may be imported from everywhere: what is Go's own, but small in a browser.
var everywhere = []string{"fmt", "json"}

// forbidden is the world outside: files, network, database, clock, logging.
var forbidden = []string{
	"os",
	"net",
	"net/http",
	"database/sql",
	"time",
	"log",
	"log/slog",
	"syscall",
	"io/fs",
	"math/rand",
}

func TestCoreImportsOnlyWhatItMay(t *testing.T) {
	seen := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		seen++
		folder := filepath.ToSlash(filepath.Dir(path))
		may, known := allowed[folder]
		assert.True(t, known, "%s is a new room: say here what it may import", folder)
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, spec := range file.Imports {
			name := strings.Trim(spec.Path.Value, `"`)
			assert.NotContains(t, forbidden, name, path)
			if inner, ok := strings.CutPrefix(name, ours); ok {
				assert.True(t, slices.Contains(slices.Concat(may, everywhere), inner), "%s imports %s", path, inner)
			} else {
				assert.False(t, strings.HasPrefix(name, "earlychorus/"), "%s leaves the core: %s", path, name)
			}
		}
		return nil
	})
	require.NoError(t, err)
	assert.Greater(t, seen, 20)
}

// A phone loads every byte of the browser's copy of the core: what needs files, clocks and the
// whole of printing stays out of it.
func TestTheBrowsersCoreLeavesOutWhatIsLarge(t *testing.T) {
	list := exec.CommandContext(t.Context(), "go", "list", "-deps", "../wasm")
	list.Env = append(os.Environ(), "GOOS=wasip1", "GOARCH=wasm")
	listed, err := list.Output()
	require.NoError(t, err)
	needed := strings.Fields(string(listed))
	assert.Contains(t, needed, ours+"json/small")
	for _, large := range []string{"encoding/json", "fmt", "os", "time", "runtime/debug"} {
		assert.NotContains(t, needed, large, "import %sfmt or json in its stead; see docs/adr/0019", ours)
	}
}
