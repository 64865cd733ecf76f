// Package roster reads lists of players as schools have them: any reasonable CSV,
// and OneRoster 1.2. It never guesses silently: what it is not sure of is a
// problem of its row, with the remedy.
package roster

import (
	"slices"
	"strconv"
	"strings"

	"earlychorus/core/instrument"
)

// Row is one player as a list names one.
type Row struct {
	Line       int       `json:"line" doc:"in the file, from 1"`
	First      string    `json:"first"`
	Last       string    `json:"last"`
	Instrument string    `json:"instrument" doc:"key; empty when it is not known"`
	Variant    string    `json:"variant"`
	Stage      int       `json:"stage" doc:"0: by the weeks since the first lesson"`
	ExternalID string    `json:"external_id" doc:"the school's own number"`
	Problems   []Problem `json:"problems" nullable:"false"`
}

// Problem is what is wrong with a row, and what to do.
type Problem struct {
	Field  string `json:"field" enum:"first,last,instrument,stage,row"`
	Remedy string `json:"remedy"`
}

// List is what was read of a file.
type List struct {
	Format  string   `json:"format" enum:"csv,oneroster"`
	Columns []Column `json:"columns" nullable:"false" doc:"how the file's columns were understood"`
	Rows    []Row    `json:"rows" nullable:"false"`
}

// Column is a column of the file and what it was taken for.
type Column struct {
	Name    string `json:"name"`
	Meaning string `json:"meaning" doc:"first, last, name, instrument, variant, stage, external_id; empty when it is not used"`
}

// MostRows bounds a list; a class is much smaller.
const MostRows = 500

// ReadError is a file that cannot be read at all.
type ReadError struct{ Remedy string }

func (e ReadError) Error() string { return e.Remedy }

// Check adds to a row what is wrong with it as it stands.
func (r Row) Check() Row {
	r.Problems = []Problem{}
	wrong := func(field, remedy string) { r.Problems = append(r.Problems, Problem{field, remedy}) }
	if r.First == "" {
		wrong("first", "give a first name")
	}
	if len([]rune(r.First)) > 60 || len([]rune(r.Last)) > 60 {
		wrong("first", "use at most 60 letters for a name")
	}
	i, err := instrument.Get(r.Instrument)
	switch {
	case r.Instrument == "":
		wrong("instrument", "choose an instrument")
	case err != nil:
		wrong("instrument", "choose an instrument of the list")
	default:
		if _, err := i.As(r.Variant); err != nil {
			r.Variant = ""
		}
	}
	if r.Stage < 0 || r.Stage > 4 {
		wrong("stage", "choose a stage from 1 to 4, or leave it to the weeks")
	}
	return r
}

// named checks rows against each other: two players of one name cannot be told
// apart on a sign-in page.
func named(rows []Row) []Row {
	seen := map[string]int{}
	for n := range rows {
		key := strings.ToLower(rows[n].First + " " + rows[n].Last)
		if first, twice := seen[key]; twice && key != " " {
			rows[n].Problems = append(
				rows[n].Problems,
				Problem{
					"row",
					"the same name stands in line " + strconv.Itoa(
						rows[first].Line,
					) + ": take one out, or tell them apart",
				},
			)
			continue
		}
		seen[key] = n
	}
	return rows
}

// InstrumentOf finds the instrument that a word means, and how it is built; key
// is empty for an unknown one.
func InstrumentOf(word string) (key, variant string) {
	plain := plainly(word)
	for _, v := range []string{"4 valve", "four valve", "4v"} {
		if strings.Contains(plain, v) {
			variant = "4-valve"
			plain = strings.TrimSpace(strings.ReplaceAll(strings.ReplaceAll(plain, v+"s", ""), v, ""))
		}
	}
	if _, err := instrument.Get(strings.ReplaceAll(plain, " ", "-")); err == nil {
		return strings.ReplaceAll(plain, " ", "-"), variant
	}
	if key, ok := byAlias(plain); ok {
		return key, variant
	}
	// "1st clarinet", "Clarinet 2", "clarinets".
	words := strings.Fields(plain)
	kept := words[:0]
	for _, w := range words {
		if strings.Trim(w, "0123456789") != "" && w != "st" && w != "nd" && w != "rd" && w != "in" && !isOrdinal(w) {
			kept = append(kept, strings.TrimSuffix(w, "s"))
		}
	}
	if key, ok := byAlias(strings.Join(kept, " ")); ok {
		return key, variant
	}
	return "", ""
}

// byAlias finds the instrument that lists of players call so.
func byAlias(plain string) (key string, ok bool) {
	for _, i := range instrument.All() {
		if slices.Contains(i.Aliases, plain) {
			return i.Key, true
		}
	}
	return "", false
}

func isOrdinal(w string) bool {
	return w == "1st" || w == "2nd" || w == "3rd" || w == "4th" || w == "first" || w == "second" || w == "third"
}

// plainly writes a word in small letters, flats as "b", without marks.
func plainly(s string) string {
	s = strings.ToLower(strings.TrimSpace(s))
	s = strings.NewReplacer("♭", "b", ".", " ", "-", " ", "_", " ", "(", " ", ")", " ", ",", " ", "/", " ").Replace(s)
	return strings.Join(strings.Fields(s), " ")
}
