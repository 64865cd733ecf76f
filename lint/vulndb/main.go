// Command vulndb makes the Go team's database of vulnerabilities readable by govulncheck
// without a network: the module golang.org/x/vulndb carries its entries, and this writes
// the index that stands beside them (https://go.dev/doc/security/vuln/database).
//
//	go run ./lint/vulndb index FOLDER-OF-ENTRIES FOLDER-TO-WRITE
//	go tool govulncheck -format json -db file://FOLDER ./... | go run ./lint/vulndb report
package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

func main() {
	var err error
	switch {
	case len(os.Args) == 4 && os.Args[1] == "index":
		err = index(os.Args[2], os.Args[3])
	case len(os.Args) == 2 && os.Args[1] == "report":
		err = report(os.Stdin)
	default:
		err = errors.New("say index FOLDER-OF-ENTRIES FOLDER-TO-WRITE, or report")
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "vulndb:", err)
		os.Exit(1)
	}
}

// finding is one line of govulncheck's JSON, as far as it matters here.
type finding struct {
	Finding *struct {
		OSV   string `json:"osv"`
		Fixed string `json:"fixed_version"`
		Trace []struct {
			Module   string `json:"module"`
			Version  string `json:"version"`
			Function string `json:"function"`
		} `json:"trace"`
	} `json:"finding"`
}

// report says what govulncheck found that our code really calls. What lies in a package
// is an error, since a newer package mends it; what lies in Go itself is told, since it
// is mended by building with a newer one.
func report(from io.Reader) error {
	packages, ofGo := map[string]string{}, map[string]string{}
	for lines := json.NewDecoder(from); ; {
		var f finding
		if err := lines.Decode(&f); errors.Is(err, io.EOF) {
			break
		} else if err != nil {
			return err
		}
		if f.Finding == nil || len(f.Finding.Trace) == 0 || f.Finding.Trace[0].Function == "" {
			continue // its code is not in the program
		}
		at := f.Finding.Trace[0]
		says := fmt.Sprintf("%s %s, mended in %s", at.Module, at.Version, f.Finding.Fixed)
		if at.Module == "stdlib" {
			ofGo[f.Finding.OSV] = says
		} else {
			packages[f.Finding.OSV] = says
		}
	}
	for _, found := range []map[string]string{packages, ofGo} {
		for _, id := range slices.Sorted(maps.Keys(found)) {
			fmt.Printf("  %s: %s\n", id, found[id])
		}
	}
	if len(ofGo) > 0 {
		fmt.Printf("%d known vulnerabilities of this Go itself: build what you run with a newer one.\n", len(ofGo))
	}
	if len(packages) > 0 {
		return fmt.Errorf("%d known vulnerabilities in packages: take newer ones", len(packages))
	}
	fmt.Println("No known vulnerability in what the programs are made of.")
	return nil
}

// entry is as much of one as the index wants (the OSV schema, https://ossf.github.io/osv-schema).
type entry struct {
	ID       string    `json:"id"`
	Modified time.Time `json:"modified"`
	Affected []struct {
		Package struct {
			Name string `json:"name"`
		} `json:"package"`
	} `json:"affected"`
}

type indexed struct {
	ID       string    `json:"id"`
	Modified time.Time `json:"modified"`
}

type module struct {
	Path  string    `json:"path"`
	Vulns []indexed `json:"vulns"`
}

// index writes the entries, and which module each is about.
func index(entries, out string) error {
	files, err := filepath.Glob(filepath.Join(entries, "*.json"))
	if err != nil || len(files) == 0 {
		return fmt.Errorf("no entries in %s", entries)
	}
	for _, dir := range []string{"ID", "index"} {
		if err := os.MkdirAll(filepath.Join(out, dir), 0o755); err != nil {
			return err
		}
	}
	var newest time.Time
	by := map[string][]indexed{}
	for _, file := range files {
		raw, err := os.ReadFile(file)
		if err != nil {
			return err
		}
		var e entry
		if err := json.Unmarshal(raw, &e); err != nil {
			return fmt.Errorf("%s: %w", file, err)
		}
		if err := os.WriteFile(filepath.Join(out, "ID", e.ID+".json"), raw, 0o644); err != nil {
			return err
		}
		if e.Modified.After(newest) {
			newest = e.Modified
		}
		for _, a := range e.Affected {
			known := by[a.Package.Name]
			if len(known) == 0 || known[len(known)-1].ID != e.ID {
				by[a.Package.Name] = append(known, indexed{e.ID, e.Modified})
			}
		}
	}
	modules := make([]module, 0, len(by))
	for path, vulns := range by {
		modules = append(modules, module{path, vulns})
	}
	slices.SortFunc(modules, func(a, b module) int { return strings.Compare(a.Path, b.Path) })
	for name, what := range map[string]any{
		"db": struct {
			Modified time.Time `json:"modified"`
		}{newest},
		"modules": modules,
	} {
		raw, err := json.Marshal(what)
		if err != nil {
			return err
		}
		if err := os.WriteFile(filepath.Join(out, "index", name+".json"), raw, 0o644); err != nil {
			return err
		}
	}
	return nil
}
