// Command load measures what has to be loaded before a player can begin, and says what
// each library of the page and each package of its core takes of it:
//
//	go run ./benches/load -o benches/LOAD.md
package main

import (
	"cmp"
	"flag"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"

	"earlychorus/benches/figures"
)

func main() {
	into := flag.String("o", "", "file to write the figures into; standard output otherwise")
	flag.Parse()
	if err := measure(*into); err != nil {
		fmt.Fprintln(os.Stderr, "load:", err)
		os.Exit(1)
	}
}

// dist is the interface as it was built and compressed.
const dist = "web/dist"

func measure(into string) error {
	script, err := firstScripts()
	if err != nil {
		return err
	}
	core, err := os.Stat(filepath.Join(dist, "ear.wasm.br"))
	if err != nil {
		return err
	}
	libraries, err := pageLibraries()
	if err != nil {
		return err
	}
	packages, err := corePackages()
	if err != nil {
		return err
	}
	var t strings.Builder
	fmt.Fprintf(&t, `# First load

Written by `+"`go run ./benches/load -o benches/LOAD.md`"+`. Before a player can begin: %.1f kB
of script, compressed. Behind it, once the page is quiet: the core, %.2f MB compressed.
`, kilo(script), float64(core.Size())/1e6)
	table(&t, "What is in the first script", "kB, not compressed", libraries)
	table(&t, "What is in the core", "kB of code, not compressed", packages)
	t.WriteString(dataOfCore)
	if into == "" {
		fmt.Print(t.String())
		return nil
	}
	if err := os.WriteFile(into, []byte(t.String()), 0o644); err != nil {
		return err
	}
	return figures.Put("load", []figures.Figure{
		figures.AtMost("script before a player can begin, compressed", "%.1f kB", kilo(script), 150),
		figures.AtMost("the core, compressed", "%.2f MB", float64(core.Size())/1e6, 0.9),
	})
}

const dataOfCore = `
Beside its code the core has data: tables, words, and what the runtime knows of types and functions; cmd/earpack takes
out of it what only the trace of a panic reads. A program that reads and writes JSON with encoding/json and formats
with fmt, and does nothing else, comes to 0.49 MB compressed, built and packed in the same way; one that does neither
to 0.32 MB. The core has small ones of its own (docs/adr/0019-json-and-text-small-in-a-browser.md).
`

func kilo(bytes int) float64 { return float64(bytes) / 1000 }

// firstScripts is the compressed size of the scripts that the page names.
func firstScripts() (sum int, err error) {
	page, err := os.ReadFile(filepath.Join(dist, "index.html"))
	if err != nil {
		return 0, fmt.Errorf("the interface is not built (./start builds it): %w", err)
	}
	for _, s := range regexp.MustCompile(`(?:src|href)="(/assets/[^"]+\.js)"`).FindAllStringSubmatch(string(page), -1) {
		file, err := os.Stat(filepath.Join(dist, s[1]+".br"))
		if err != nil {
			return 0, err
		}
		sum += int(file.Size())
	}
	return sum, nil
}

const shown = 20 // rows of a table; the rest is one

// table writes sizes, the largest first.
func table(t *strings.Builder, title, unit string, sizes map[string]int) {
	fmt.Fprintf(t, "\n## %s\n\n| | %s |\n| --- | ---: |\n", title, unit)
	rest := 0
	names := slices.SortedFunc(maps.Keys(sizes), func(a, b string) int {
		return cmp.Or(cmp.Compare(sizes[b], sizes[a]), cmp.Compare(a, b))
	})
	for n, name := range names {
		if n < shown {
			fmt.Fprintf(t, "| %s | %.1f |\n", name, kilo(sizes[name]))
		} else {
			rest += sizes[name]
		}
	}
	fmt.Fprintf(t, "| all others | %.1f |\n", kilo(rest))
}
