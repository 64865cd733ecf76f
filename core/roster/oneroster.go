package roster

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"path"
	"slices"
	"strings"
)

// OneRoster 1.2 (1EdTech, CSV binding): users.csv names the people, enrollments.csv
// puts them into classes, roles.csv says who is a student. Names of files and
// columns are from memory of the standard. It knows nothing of instruments.

const (
	mostEntries = 64
	// A district's export is taken whole: its class is chosen here.
	mostLines    = 200_000
	largestEntry = 64 << 20
)

func isOneRosterUsers(head []string) bool {
	return slices.Contains(head, "sourcedId") && slices.Contains(head, "givenName") &&
		slices.Contains(head, "familyName")
}

func readOneRosterZip(file []byte, how How) (List, error) {
	z, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
	if err != nil {
		return List{}, ReadError{"The zip file is broken. Export the roster again."}
	}
	if len(z.File) > mostEntries {
		return List{}, ReadError{"The zip file holds too many files for a roster."}
	}
	files := map[string][][]string{}
	for _, f := range z.File {
		name := strings.ToLower(path.Base(f.Name))
		if !slices.Contains([]string{"users.csv", "enrollments.csv", "classes.csv", "roles.csv"}, name) {
			continue
		}
		records, err := entry(f)
		if err != nil {
			return List{}, err
		}
		files[name] = records
	}
	if files["users.csv"] == nil {
		return List{}, ReadError{"The zip file has no users.csv. Export a OneRoster 1.2 CSV roster."}
	}
	return oneRoster(files, how)
}

func entry(f *zip.File) ([][]string, error) {
	in, err := f.Open()
	if err != nil {
		return nil, ReadError{"The zip file is broken. Export the roster again."}
	}
	defer in.Close() //nolint:errcheck // read only
	raw, err := io.ReadAll(io.LimitReader(in, largestEntry+1))
	if err != nil || len(raw) > largestEntry {
		return nil, ReadError{fmt.Sprintf("%s is too large or broken. Export just the class.", path.Base(f.Name))}
	}
	return recordsOf(raw, mostLines)
}

// table reads records by the names of their columns.
type table struct {
	at   map[string]int
	rows [][]string
}

func tableOf(records [][]string) table {
	t := table{at: map[string]int{}}
	if len(records) == 0 {
		return t
	}
	for n, name := range records[0] {
		t.at[name] = n
	}
	t.rows = records[1:]
	return t
}

func (t table) get(row []string, column string) string {
	n, ok := t.at[column]
	if !ok || n >= len(row) {
		return ""
	}
	return row[n]
}

// oneRoster reads who is in a class. With enrollments the file is the whole class: who is not
// in it any more has left. Users by themselves are only what they say: whoever is to be deleted
// leaves.
func oneRoster(files map[string][][]string, how How) (List, error) {
	list := List{
		Format: "oneroster",
		Columns: []Column{
			{Name: "givenName", Meaning: "first"},
			{Name: "familyName", Meaning: "last"},
			{Name: "sourcedId", Meaning: "external_id"},
		},
		Rows: []Row{},
	}
	in := enrolledIn(files)
	classID := how.ClassID
	if classID == "" && len(in.order) > 1 {
		list.Classes = in.choices(files)
		return list, nil
	}
	if classID == "" && len(in.order) == 1 {
		classID = in.order[0]
	}
	list.Whole = len(in.order) > 0
	students := studentsOf(files)
	users := tableOf(files["users.csv"])
	for n, row := range users.rows {
		id := users.get(row, "sourcedId")
		role := users.get(row, "role") // 1.1 kept it here
		if list.Whole && !in.of[classID][id] || students != nil && !students[id] || role != "" && role != "student" {
			continue
		}
		first := users.get(row, "preferredGivenName")
		if first == "" {
			first = users.get(row, "givenName")
		}
		r := Row{
			Line:   n + 2,
			Person: Person{FirstName: first, LastName: users.get(row, "familyName"), ExternalID: id},
		}.Check()
		// 1.0 and 1.1 said "inactive", too.
		status := users.get(row, "status")
		r.Leaves = status == "tobedeleted" || status == "inactive" || users.get(row, "enabledUser") == "false"
		list.Rows = append(list.Rows, r)
	}
	if len(list.Rows) == 0 {
		return list, ReadError{"The roster names no students."}
	}
	list.Rows = named(list.Rows)
	return list, nil
}

// enrolled is who is a student of which class.
type enrolled struct {
	order []string
	of    map[string]map[string]bool
}

func enrolledIn(files map[string][][]string) enrolled {
	t := tableOf(files["enrollments.csv"])
	out := enrolled{of: map[string]map[string]bool{}}
	for _, row := range t.rows {
		class, role := t.get(row, "classSourcedId"), t.get(row, "role")
		if role != "student" && role != "" || t.get(row, "status") == "tobedeleted" {
			continue
		}
		if out.of[class] == nil {
			out.order = append(out.order, class)
			out.of[class] = map[string]bool{}
		}
		out.of[class][t.get(row, "userSourcedId")] = true
	}
	return out
}

// choices lists the classes by title, with how many students each has.
func (e enrolled) choices(files map[string][][]string) []Choice {
	titles := map[string]string{}
	t := tableOf(files["classes.csv"])
	for _, row := range t.rows {
		titles[t.get(row, "sourcedId")] = t.get(row, "title")
	}
	out := []Choice{}
	for _, id := range e.order {
		title := titles[id]
		if title == "" {
			title = id
		}
		out = append(out, Choice{id, title, len(e.of[id])})
	}
	slices.SortStableFunc(out, func(a, b Choice) int { return strings.Compare(a.Title, b.Title) })
	return out
}

// studentsOf says who is a student; nil where the file does not.
func studentsOf(files map[string][][]string) map[string]bool {
	t := tableOf(files["roles.csv"])
	if len(t.rows) == 0 {
		return nil
	}
	out := map[string]bool{}
	for _, row := range t.rows {
		if t.get(row, "role") == "student" && t.get(row, "status") != "tobedeleted" {
			out[t.get(row, "userSourcedId")] = true
		}
	}
	return out
}
