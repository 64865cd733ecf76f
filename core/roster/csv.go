package roster

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode/utf8"
)

// largest is the longest file read.
const largest = 2 << 20

// headings are what columns are called, by what they mean.
var headings = map[string][]string{
	"first": {
		"first",
		"first name",
		"firstname",
		"given name",
		"given",
		"forename",
		"givenname",
		"preferred name",
		"vorname",
		"prénom",
	},
	"last":       {"last", "last name", "lastname", "family name", "surname", "familyname", "nachname", "nom"},
	"name":       {"name", "student", "student name", "player", "full name", "pupil"},
	"instrument": {"instrument", "instr", "section", "plays", "instrument name", "part"},
	"variant":    {"variant", "valves", "built as"},
	"stage":      {"stage", "level"},
	"external_id": {
		"id",
		"student id",
		"external id",
		"sourcedid",
		"sis id",
		"number",
		"student number",
		"pupil number",
	},
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
	file = bytes.TrimPrefix(file, []byte("\xEF\xBB\xBF"))
	if !utf8.Valid(file) {
		file = latin1(file) // older spreadsheets save so
	}
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

func latin1(file []byte) []byte {
	runes := make([]rune, len(file))
	for n, b := range file {
		runes[n] = rune(b)
	}
	return []byte(string(runes))
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
	if !has(meanings, "first") && !has(meanings, "name") {
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

func has(meanings []string, m string) bool {
	for _, x := range meanings {
		if x == m {
			return true
		}
	}
	return false
}

// meaningsOf understands a line as headings; headed is false when none of it is
// one.
func meaningsOf(record []string) (meanings []string, headed bool) {
	meanings = make([]string, len(record))
	for n, cell := range record {
		for meaning, names := range headings {
			for _, name := range names {
				if plainly(cell) == name && !has(meanings, meaning) {
					meanings[n], headed = meaning, true
				}
			}
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
		if key, _ := InstrumentOf(cell); key != "" && !has(meanings, "instrument") {
			meanings[n] = "instrument"
		} else if _, err := strconv.Atoi(cell); err != nil && cell != "" && len(names) < 2 {
			names = append(names, strconv.Itoa(n))
		}
	}
	if !has(meanings, "instrument") {
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

func rowOf(record, meanings []string, line int) Row {
	r := Row{Line: line}
	said := ""
	for n, cell := range record {
		if n >= len(meanings) {
			break
		}
		switch meanings[n] {
		case "first":
			r.First = cell
		case "last":
			r.Last = cell
		case "name":
			r.First, r.Last = divided(cell)
		case "instrument":
			said = cell
			r.Instrument, r.Variant = InstrumentOf(cell)
		case "variant":
			if strings.Contains(cell, "4") {
				r.Variant = "4-valve"
			}
		case "stage":
			r.Stage, _ = strconv.Atoi(cell) // anything else is by the weeks
		case "external_id":
			r.ExternalID = cell
		}
	}
	r = r.Check()
	if r.Instrument == "" && said != "" {
		for n := range r.Problems {
			if r.Problems[n].Field == "instrument" {
				r.Problems[n].Remedy = fmt.Sprintf("%q is not known here: choose an instrument", said)
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
