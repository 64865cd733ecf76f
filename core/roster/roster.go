// Package roster reads lists of players as schools have them: any reasonable CSV,
// and OneRoster 1.2. It never guesses silently: what it is not sure of is a
// problem of its row, with the remedy.
package roster

import (
	"fmt"
	"slices"
	"strings"

	"earlychorus/core/instrument"
)

// Row is one player as a list names one.
type Row struct {
	Line int `json:"line" doc:"in the file, from 1"`
	Person
	Problems []Problem `json:"problems" nullable:"false"`

	// Said is the list's own word for the instrument; the school learns from it.
	Said   string            `json:"said,omitempty" doc:"the list's own word for the instrument"`
	Also   map[string]string `json:"-"` // cells that were asked for, by heading
	Leaves bool              `json:"leaves,omitempty" doc:"the list says that this one is not in the class any more"`
}

// Problem is what is wrong with a row, and what to do.
type Problem struct {
	Field  string `json:"field" doc:"key of the field, or row"`
	Remedy string `json:"remedy"`
}

// List is what was read of a file.
type List struct {
	Format  string   `json:"format" enum:"csv,oneroster"`
	Columns []Column `json:"columns" nullable:"false" doc:"how the file's columns were understood"`
	Rows    []Row    `json:"rows" nullable:"false"`

	// A file of several classes: one has to be chosen, and there are no rows until it is.
	Classes []Choice `json:"classes,omitempty"`
	// Whole reports that the file lists the whole class: who is not on it has left.
	Whole bool `json:"whole,omitempty"`
}

// Choice is a class of a file that holds several.
type Choice struct {
	ID      string `json:"id"`
	Title   string `json:"title"`
	Players int    `json:"players"`
}

// Column is a column of the file and what it was taken for.
type Column struct {
	Name    string `json:"name"`
	Meaning string `json:"meaning" doc:"first, last, name, instrument, variant, stage, external_id; empty when it is not used"`

	Headed  bool     `json:"headed,omitempty" doc:"the name is the file's own"`
	Samples []string `json:"samples,omitempty" doc:"what stands in it, for whoever says what it means"`
}

// MostRows bounds a list; a class is much smaller.
const MostRows = 500

// ReadError is a file that cannot be read at all.
type ReadError struct{ Remedy string }

func (e ReadError) Error() string { return e.Remedy }

// Check returns the row tidied, with what has to be mended in it.
func (r Row) Check() Row {
	r.Person, r.Problems = r.Tidy(), []Problem{}
	for _, f := range Fields() {
		remedy := ""
		switch {
		case f.text != nil:
			remedy = f.wrongText(*f.text(&r.Person))
		case f.wrong != nil:
			remedy = f.wrong(r.Person)
		}
		if remedy != "" {
			r.Problems = append(r.Problems, Problem{f.Key, remedy})
		}
	}
	return r
}

// Against compares the row with whom a class knows: which of them it means, by
// index (-1 for nobody), and the row with what it leaves out filled in. What was
// found in the list as a whole stays a problem.
func (r Row) Against(known []Person) (row Row, means int) {
	for n, p := range known {
		if !r.Means(p) {
			continue
		}
		row = Row{Line: r.Line, Person: r.Over(p)}.Check()
		row.Said, row.Leaves = r.Said, r.Leaves
		if r.Leaves {
			row.Person, row.Problems = p, []Problem{}
		}
		for _, q := range r.Problems {
			if q.Field == wholeRow {
				row.Problems = append(row.Problems, q)
			}
		}
		return row, n
	}
	return r, -1
}

// wholeRow stands for a field where a problem is of the row among the others.
const wholeRow = "row"

// named checks rows against each other: two players of one name cannot be told
// apart on a sign-in page.
func named(rows []Row) []Row {
	seen := map[string]int{}
	for n := range rows {
		key := strings.ToLower(rows[n].FullName())
		if first, twice := seen[key]; twice && key != " " {
			rows[n].Problems = append(
				rows[n].Problems,
				Problem{
					wholeRow,
					fmt.Sprintf("the same name stands in line %d: take one out, or tell them apart", rows[first].Line),
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
	for _, i := range instrument.Band() {
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
