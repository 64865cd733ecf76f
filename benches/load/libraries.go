package main

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
)

// sourceMap is as much of one as says where each piece of a script comes from (ECMA-426,
// from memory).
type sourceMap struct {
	Sources  []string `json:"sources"`
	Mappings string   `json:"mappings"`
}

// pageLibraries builds the interface with source maps and adds up, for its first script,
// what comes from which library; what is ours is told by its folder.
func pageLibraries() (map[string]int, error) {
	folder, err := os.MkdirTemp("", "load")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // a temporary folder
	build := exec.Command("npx", "vite", "build", "--sourcemap", "--outDir", folder, "--logLevel", "error")
	build.Dir, build.Stderr = "web", os.Stderr
	if err := build.Run(); err != nil {
		return nil, fmt.Errorf("building with source maps: %w", err)
	}
	found, err := filepath.Glob(filepath.Join(folder, "assets", "index-*.js"))
	if err != nil || len(found) == 0 {
		return nil, fmt.Errorf("no first script in %s: %w", folder, err)
	}
	script, err := os.ReadFile(found[0])
	if err != nil {
		return nil, err
	}
	raw, err := os.ReadFile(found[0] + ".map")
	if err != nil {
		return nil, err
	}
	var m sourceMap
	if err := json.Unmarshal(raw, &m); err != nil {
		return nil, err
	}
	return m.share(strings.Split(string(script), "\n")), nil
}

// share gives each stretch of a script to the library that it comes from.
func (m sourceMap) share(lines []string) map[string]int {
	sizes := map[string]int{}
	source := 0
	for n, line := range strings.Split(m.Mappings, ";") {
		column, from, of := 0, 0, ""
		for segment := range strings.SplitSeq(line, ",") {
			v := numbers(segment)
			if len(v) == 0 {
				continue
			}
			column += v[0]
			if of != "" {
				sizes[of] += column - from
			}
			from, of = column, ""
			if len(v) > 1 {
				source += v[1]
				of = library(m.Sources[source])
			}
		}
		if of != "" && n < len(lines) {
			sizes[of] += len(lines[n]) - from
		}
	}
	return sizes
}

var (
	installed = regexp.MustCompile(`node_modules/((?:@[^/]+/)?[^/]+)`)
	own       = regexp.MustCompile(`src/([^/]+(?:/[^/.]+)?)`)
)

// library names where a source belongs.
func library(source string) string {
	if m := installed.FindStringSubmatch(source); m != nil {
		return m[1]
	}
	if m := own.FindStringSubmatch(source); m != nil {
		return "ours: " + m[1]
	}
	return "the bundler's own"
}

const digits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/"

// numbers reads a segment's base 64 VLQ numbers: five bits a digit, the lowest of the
// first is the sign.
func numbers(segment string) (out []int) {
	value, shift := 0, 0
	for _, c := range segment {
		d := strings.IndexRune(digits, c)
		value |= d & 31 << shift
		shift += 5
		if d&32 != 0 {
			continue
		}
		if value&1 == 1 {
			out = append(out, -(value >> 1))
		} else {
			out = append(out, value>>1)
		}
		value, shift = 0, 0
	}
	return out
}
