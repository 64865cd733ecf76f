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

const mostEntries = 64

func isOneRosterUsers(head []string) bool {
	return slices.Contains(head, "sourcedId") && slices.Contains(head, "givenName") &&
		slices.Contains(head, "familyName")
}

func readOneRosterZip(file []byte, classID string) (List, error) {
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
	return oneRoster(files, classID)
}

func entry(f *zip.File) ([][]string, error) {
	in, err := f.Open()
	if err != nil {
		return nil, ReadError{"The zip file is broken. Export the roster again."}
	}
	defer in.Close() //nolint:errcheck // read only
	raw, err := io.ReadAll(io.LimitReader(in, largest+1))
	if err != nil || len(raw) > largest {
		return nil, ReadError{fmt.Sprintf("%s is too large or broken. Export just the class.", path.Base(f.Name))}
	}
	return recordsOf(raw)
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

func oneRoster(files map[string][][]string, classID string) (List, error) {
	users := tableOf(files["users.csv"])
	enrollments := tableOf(files["enrollments.csv"])
	roles := tableOf(files["roles.csv"])
	students := map[string]bool{}
	for _, row := range roles.rows {
		if roles.get(row, "role") == "student" {
			students[roles.get(row, "userSourcedId")] = true
		}
	}
	enrolled, classes := map[string]bool{}, []string{}
	for _, row := range enrollments.rows {
		id := enrollments.get(row, "classSourcedId")
		if !slices.Contains(classes, id) {
			classes = append(classes, id)
		}
		if role := enrollments.get(row, "role"); (classID == "" || id == classID) && (role == "student" || role == "") {
			enrolled[enrollments.get(row, "userSourcedId")] = true
		}
	}
	if classID == "" && len(classes) > 1 {
		return List{}, ReadError{
			fmt.Sprintf("The roster holds several classes (%s). Export one of them alone.",
				strings.Join(classNames(files, classes), ", ")),
		}
	}
	list := List{
		Format:  "oneroster",
		Columns: []Column{{"givenName", "first"}, {"familyName", "last"}, {"sourcedId", "external_id"}},
		Rows:    []Row{},
	}
	for n, row := range users.rows {
		id := users.get(row, "sourcedId")
		role := users.get(row, "role") // 1.1 kept it here
		switch {
		case len(enrollments.rows) > 0 && !enrolled[id],
			len(roles.rows) > 0 && !students[id],
			role != "" && role != "student",
			users.get(row, "status") == "tobedeleted",
			users.get(row, "enabledUser") == "false":
			continue
		}
		first := users.get(row, "preferredGivenName")
		if first == "" {
			first = users.get(row, "givenName")
		}
		list.Rows = append(list.Rows, Row{
			Line:   n + 2,
			Person: Person{FirstName: first, LastName: users.get(row, "familyName"), ExternalID: id},
		}.Check())
	}
	if len(list.Rows) == 0 {
		return list, ReadError{"The roster names no students."}
	}
	list.Rows = named(list.Rows)
	return list, nil
}

func classNames(files map[string][][]string, ids []string) []string {
	t := tableOf(files["classes.csv"])
	out := slices.Clone(ids)
	for _, row := range t.rows {
		if n := slices.Index(ids, t.get(row, "sourcedId")); n >= 0 && t.get(row, "title") != "" {
			out[n] = t.get(row, "title")
		}
	}
	return out
}
