package roster

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
)

// largest is the longest file read.
const largest = 2 << 20

// fullName is the meaning of a column that holds first and last name.
const fullName = "name"

// fullNames are what lists call it.
var fullNames = []string{"name", "student", "student name", "player", "full name", "pupil"}

// meaningOf returns what a heading means: a field's key, fullName, or "".
func meaningOf(heading string) string {
	plain := plainly(heading)
	if slices.Contains(fullNames, plain) {
		return fullName
	}
	for _, f := range Fields() {
		if slices.Contains(f.headings, plain) {
			return f.Key
		}
	}
	return ""
}

// Read reads a file: CSV with commas, semicolons or tabs, or a OneRoster zip.
// classID picks the class in a OneRoster file that holds several; it may be
// empty. Errors: ReadError.
func Read(file []byte, classID string) (List, error) {
	switch {
	case len(file) > largest:
		return List{}, ReadError{"The file is larger than 2 MB. Save just the list of players."}
	case len(bytes.TrimSpace(file)) == 0:
		return List{}, ReadError{"The file is empty."}
	case bytes.HasPrefix(file, []byte("PK")):
		return readOneRosterZip(file, classID)
	}
	records, err := recordsOf(file)
	if err != nil {
		return List{}, err
	}
	if isOneRosterUsers(records[0]) {
		return oneRoster(map[string][][]string{"users.csv": records}, classID)
	}
	return fromRecords(records)
}

// recordsOf reads a CSV file's lines, whatever divides them.
func recordsOf(file []byte) ([][]string, error) {
	file = inUTF8(file)
	r := csv.NewReader(bytes.NewReader(file))
	r.Comma = divider(file)
	r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = -1, true, true
	var out [][]string
	for {
		record, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			line, _ := r.FieldPos(0)
			return nil, ReadError{fmt.Sprintf("Line %d cannot be read. Save the list as CSV again.", line)}
		}
		for n := range record {
			record[n] = strings.TrimSpace(record[n])
		}
		out = append(out, record)
		if len(out) > MostRows+1 {
			return nil, ReadError{fmt.Sprintf("The file has more than %d lines. Save just one class.", MostRows)}
		}
	}
	if len(out) == 0 {
		return nil, ReadError{"The file is empty."}
	}
	return out, nil
}

// divider is what most often stands in the first line.
func divider(file []byte) rune {
	first, _, _ := bytes.Cut(file, []byte("\n"))
	best, most := ',', 0
	for _, d := range []rune{',', ';', '\t'} {
		if n := bytes.Count(first, []byte(string(d))); n > most {
			best, most = d, n
		}
	}
	return best
}

func fromRecords(records [][]string) (List, error) {
	list := List{Format: "csv", Columns: []Column{}, Rows: []Row{}}
	meanings, headed := meaningsOf(records[0])
	begin := 1
	if !headed {
		begin = 0
		meanings = guessed(records[0])
	}
	for n, m := range meanings {
		name := fmt.Sprintf("column %d", n+1)
		if headed {
			name = records[0][n]
		}
		list.Columns = append(list.Columns, Column{name, m})
	}
	if !slices.Contains(meanings, "first") && !slices.Contains(meanings, "name") {
		return list, ReadError{"No column with names was found. Call one \"First name\" or \"Name\"."}
	}
	for n, record := range records[begin:] {
		if strings.Join(record, "") == "" {
			continue
		}
		list.Rows = append(list.Rows, rowOf(record, meanings, begin+n+1))
	}
	if len(list.Rows) == 0 {
		return list, ReadError{"The file has headings, but no players."}
	}
	list.Rows = named(list.Rows)
	return list, nil
}

// meaningsOf understands a line as headings; headed is false when none of it is
// one.
func meaningsOf(record []string) (meanings []string, headed bool) {
	meanings = make([]string, len(record))
	for n, cell := range record {
		if m := meaningOf(cell); m != "" && !slices.Contains(meanings, m) {
			meanings[n], headed = m, true
		}
	}
	return meanings, headed
}

// guessed is what the columns of a list without headings hold: an instrument
// where one is, names before it.
func guessed(record []string) []string {
	meanings := make([]string, len(record))
	names := []string{}
	for n, cell := range record {
		if key, _ := InstrumentOf(cell); key != "" && !slices.Contains(meanings, "instrument") {
			meanings[n] = "instrument"
		} else if _, err := strconv.Atoi(cell); err != nil && cell != "" && len(names) < 2 {
			names = append(names, strconv.Itoa(n))
		}
	}
	if !slices.Contains(meanings, "instrument") {
		return meanings // nothing says that these are players
	}
	for k, at := range names {
		n, _ := strconv.Atoi(at)
		switch {
		case len(names) == 1 || strings.Contains(record[n], " ") || strings.Contains(record[n], ","):
			meanings[n] = "name"
			return meanings
		default:
			meanings[n] = []string{"first", "last"}[k]
		}
	}
	return meanings
}

// rowOf reads a line by what its columns mean.
func rowOf(record, meanings []string, line int) Row {
	r := Row{Line: line}
	cells := map[string]string{}
	for n, cell := range record {
		if n < len(meanings) && meanings[n] != "" {
			cells[meanings[n]] = cell
		}
	}
	if name, ok := cells[fullName]; ok {
		r.FirstName, r.LastName = divided(name)
	}
	for _, f := range Fields() {
		cell, there := cells[f.Key]
		switch {
		case there && f.text != nil:
			*f.text(&r.Person) = cell
		case there:
			f.read(&r.Person, cell)
		}
	}
	r = r.Check()
	if cell := cells["instrument"]; r.Instrument == "" && cell != "" {
		for n := range r.Problems {
			if r.Problems[n].Field == "instrument" {
				r.Problems[n].Remedy = fmt.Sprintf("%q is not known here: choose an instrument", cell)
			}
		}
	}
	return r
}

// divided parts a full name: "Ashdown, Wren" and "Wren Ashdown" alike.
func divided(name string) (first, last string) {
	if last, first, ok := strings.Cut(name, ","); ok {
		return strings.TrimSpace(first), strings.TrimSpace(last)
	}
	words := strings.Fields(name)
	if len(words) == 0 {
		return "", ""
	}
	return words[0], strings.Join(words[1:], " ")
}
