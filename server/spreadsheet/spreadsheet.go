// Package spreadsheet writes CSV that is safe to open in a spreadsheet, where a
// player's words could otherwise be run as a formula.
package spreadsheet

import (
	"encoding/csv"
	"io"
	"slices"
	"strconv"
	"strings"
)

// Writer writes lines of CSV.
type Writer struct{ *csv.Writer }

// NewWriter returns a writer to w, to be flushed at the end.
func NewWriter(w io.Writer) Writer { return Writer{csv.NewWriter(w)} }

// Write writes a line. A cell that a spreadsheet would take for a formula begins
// with an apostrophe, which it does not show; numbers stay numbers. cells is not
// changed.
func (w Writer) Write(cells []string) error {
	safe := cells
	for n, c := range cells {
		if !isFormula(c) {
			continue
		}
		if &safe[0] == &cells[0] {
			safe = slices.Clone(cells)
		}
		safe[n] = "'" + c
	}
	return w.Writer.Write(safe)
}

// isFormula reports whether a spreadsheet would run a cell. Source: OWASP, "CSV
// Injection", from memory: it begins with one of = + - @, a tab or a line's end.
func isFormula(cell string) bool {
	if cell == "" || !strings.ContainsRune("=+-@\t\r\n", rune(cell[0])) {
		return false
	}
	_, err := strconv.ParseFloat(cell, 64)
	return err != nil
}
