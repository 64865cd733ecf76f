package main

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
)

// corePackages builds and packs the core with its names and adds up the code of each package.
func corePackages() (map[string]int, error) {
	folder, err := os.MkdirTemp("", "load")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder) //nolint:errcheck // a temporary folder
	file := filepath.Join(folder, "ear.wasm")
	build := exec.Command("bash", "-c",
		`. scripts/setup.sh && compile_ear "$0.built" && go run ./cmd/earpack "$0.built" "$0"`, file)
	build.Stderr = os.Stderr
	if err := build.Run(); err != nil {
		return nil, fmt.Errorf("building the core: %w", err)
	}
	raw, err := os.ReadFile(file)
	if err != nil {
		return nil, err
	}
	m := module{raw: raw, at: 8} // behind the magic and the version
	m.read()
	sizes := map[string]int{}
	for n, size := range m.sizes {
		sizes[packageOf(m.names[n+m.imported])] += size
	}
	return sizes, nil
}

// packageOf is the package of a function as the linker names it.
func packageOf(function string) string {
	name, _, _ := strings.Cut(function, ".")
	if ours, ok := strings.CutPrefix(name, "earlychorus_"); ok {
		return "ours: " + strings.ReplaceAll(ours, "_", "/")
	}
	return strings.ReplaceAll(name, "_", "/")
}

// The sections of a module that are read (WebAssembly Core Specification, section 5.5).
const (
	customSection = 0
	importSection = 2
	codeSection   = 10
	functionNames = 1 // a part of the section of names
)

// module is a module's bytes being read.
type module struct {
	raw      []byte
	at       int
	imported int
	sizes    []int // of each function that is not imported
	names    map[int]string
}

func (m *module) read() {
	m.names = map[int]string{}
	for m.at < len(m.raw) {
		kind := m.raw[m.at]
		m.at++
		size := m.number()
		end := m.at + size
		switch kind {
		case importSection:
			m.imported = m.number()
		case codeSection:
			for range m.number() {
				size := m.number()
				m.sizes = append(m.sizes, size)
				m.at += size
			}
		case customSection:
			if m.text() == "name" {
				m.readNames(end)
			}
		}
		m.at = end
	}
}

func (m *module) readNames(end int) {
	for m.at < end {
		part := m.raw[m.at]
		m.at++
		size := m.number()
		next := m.at + size
		if part == functionNames {
			for range m.number() {
				function := m.number()
				m.names[function] = m.text()
			}
		}
		m.at = next
	}
}

// number reads an unsigned LEB128 number.
func (m *module) number() (out int) {
	for shift := 0; ; shift += 7 {
		b := m.raw[m.at]
		m.at++
		out |= int(b&0x7f) << shift
		if b < 0x80 {
			return out
		}
	}
}

func (m *module) text() string {
	size := m.number()
	m.at += size
	return string(m.raw[m.at-size : m.at])
}
