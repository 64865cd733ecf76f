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

// How says how a file is to be read; the zero How is as the program thinks.
type How struct {
	Taught   Taught
	Meanings []string // of the columns, by hand; "" keeps what the program thinks, NotUsed leaves one out
	Headings Headings // whether the first line is one
	ClassID  string   // of a OneRoster file that holds several classes
	Also     []string // headings, plainly, of cells that are wanted as they are

	also []string // the same, by column
}

// Headings says whether a file's first line says what its columns are.
type Headings string

const (
	HeadingsMaybe Headings = ""
	HeadingsYes   Headings = "yes"
	HeadingsNo    Headings = "no"
)

// Read reads a file: CSV with commas, semicolons or tabs, or a OneRoster zip. A file whose
// columns are not understood has columns and no rows; so has one of several classes, until one
// is chosen. Errors: ReadError.
func Read(file []byte, how How) (List, error) {
	switch {
	case len(file) > largest:
		return List{}, ReadError{"The file is larger than 2 MB. Save just the list of players."}
	case len(bytes.TrimSpace(file)) == 0:
		return List{}, ReadError{"The file is empty."}
	case bytes.HasPrefix(file, []byte("PK")):
		return readOneRosterZip(file, how)
	}
	records, err := recordsOf(file, MostRows)
	if err != nil {
		return List{}, err
	}
	if isOneRosterUsers(records[0]) {
		return oneRoster(map[string][][]string{"users.csv": records}, how)
	}
	return fromRecords(records, how)
}

// recordsOf reads a CSV file's lines, whatever divides them; most at most, and headings.
func recordsOf(file []byte, most int) ([][]string, error) {
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
		if len(out) > most+1 {
			return nil, ReadError{fmt.Sprintf("The file has more than %d lines. Save just one class.", most)}
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

func fromRecords(records [][]string, how How) (List, error) {
	list := List{Format: "csv", Columns: []Column{}, Rows: []Row{}}
	meanings, headed := how.meanings(records[0])
	begin := 1
	if !headed {
		begin = 0
	}
	list.Columns = columnsOf(records, meanings, headed)
	how.also = wanted(records[0], how.Also)
	if len(records) == begin {
		return list, ReadError{"The file has headings, but no players."}
	}
	if !slices.Contains(meanings, "first") && !slices.Contains(meanings, fullName) {
		return list, nil // somebody has to say which column has the names
	}
	for n, record := range records[begin:] {
		if strings.Join(record, "") == "" {
			continue
		}
		list.Rows = append(list.Rows, how.row(record, meanings, begin+n+1))
	}
	if len(list.Rows) == 0 {
		return list, ReadError{"The file has headings, but no players."}
	}
	list.Rows = named(list.Rows)
	return list, nil
}

// wanted names the columns whose cells are wanted as they are.
func wanted(record, also []string) []string {
	out := make([]string, len(record))
	for n, cell := range record {
		if heading := plainly(cell); slices.Contains(also, heading) {
			out[n] = heading
		}
	}
	return out
}

const mostSamples = 3 // of a column's cells

// columnsOf says how a file's columns were understood, with what stands in them.
func columnsOf(records [][]string, meanings []string, headed bool) []Column {
	out := []Column{}
	for n, m := range meanings {
		c := Column{Name: fmt.Sprintf("column %d", n+1), Meaning: m, Headed: headed}
		body := records
		if headed {
			c.Name, body = records[0][n], records[1:]
		}
		for _, record := range body {
			if n < len(record) && record[n] != "" && len(c.Samples) < mostSamples {
				c.Samples = append(c.Samples, record[n])
			}
		}
		out = append(out, c)
	}
	return out
}

// meanings understands a file's columns: by its headings, or by what stands in its first line;
// what was said by hand goes before. headed is false when none of the line is a heading.
func (how How) meanings(record []string) (meanings []string, headed bool) {
	meanings = make([]string, len(record))
	for n, cell := range record {
		m := how.Taught.meaning(cell)
		_, known := how.Taught.Columns[plainly(cell)]
		headed = headed || m != "" || known
		if m != "" && !slices.Contains(meanings, m) {
			meanings[n] = m
		}
	}
	if !headed {
		meanings = guessed(record)
		// Where nothing is known of a list's columns, its first line is headings more often than not
		// (common practice, no published source).
		headed = strings.Join(meanings, "") == ""
	}
	switch how.Headings {
	case HeadingsYes:
		headed = true
	case HeadingsNo:
		headed = false
	}
	for n, m := range how.Meanings {
		if n >= len(meanings) || m == "" {
			continue
		}
		if k := slices.Index(meanings, m); k >= 0 {
			meanings[k] = ""
		}
		meanings[n] = strings.TrimSuffix(m, NotUsed)
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

// row reads a line by what its columns mean.
func (how How) row(record, meanings []string, line int) Row {
	r := Row{Line: line}
	cells := map[string]string{}
	for n, cell := range record {
		if n < len(meanings) && meanings[n] != "" {
			cells[meanings[n]] = cell
		}
	}
	for n, cell := range record {
		if n < len(how.also) && how.also[n] != "" {
			if r.Also == nil {
				r.Also = map[string]string{}
			}
			r.Also[how.also[n]] = cell
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
		case there && f.Key == "instrument":
			r.Said = cell
			r.Instrument, r.Variant = how.Taught.instrument(cell)
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
