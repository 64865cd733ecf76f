// Package gradebook writes practice as a school's gradebook reads it: a line a player and week,
// as a plain list and as OneRoster 1.2 (1EdTech, CSV binding: gradebook). Names of files and
// columns are from memory of the standard. What was practiced counts, not how well it went: a
// beginner's mark for practice is for coming back (common practice, no published source).
package gradebook

import (
	"fmt"
	"strconv"
	"time"
)

// Class is whose gradebook it is.
type Class struct {
	ID    string // as the school's own system knows it
	Title string
	Goal  int // days a week that are the whole mark, 1 to 7
}

// Player is somebody of it.
type Player struct {
	ID          string // as the school's own system knows it
	First, Last string
	Instrument  string
}

// Week is what a player practiced in a week.
type Week struct {
	Player  int // index among the players
	Monday  time.Time
	Days    int     // on which something was recorded or ticked
	Takes   int     //
	Minutes float64 // of recordings
	Clean   int     // takes that came out clean, by the last word on them
}

// Test is a playing test and its marks.
type Test struct {
	ID, Title, Says string
	Due             string // as 2026-12-04
	Most            int    // points
	Results         []Mark
}

// Mark is a player's mark in a test.
type Mark struct {
	Player string // as the school's own system knows it
	Points int
	Word   string
}

// Score is the days that count, up to the goal.
func (c Class) Score(w Week) int { return min(w.Days, c.Goal) }

// List is the plain list: a line for each player and week, weeks without practice too.
func List(c Class, players []Player, weeks []Week) [][]string {
	out := [][]string{
		{
			"week",
			"student_id",
			"first_name",
			"last_name",
			"instrument",
			"days",
			"takes",
			"minutes",
			"clean",
			"score",
			"out_of",
		},
	}
	eachWeek(players, weeks, func(p Player, w Week) {
		out = append(out, []string{
			w.Monday.Format(time.DateOnly), p.ID, p.First, p.Last, p.Instrument,
			strconv.Itoa(w.Days), strconv.Itoa(w.Takes), fmt.Sprintf("%.1f", w.Minutes), strconv.Itoa(w.Clean),
			strconv.Itoa(c.Score(w)), strconv.Itoa(c.Goal),
		})
	})
	return out
}

// eachWeek visits every player in every week that anybody practiced in.
func eachWeek(players []Player, weeks []Week, visit func(Player, Week)) {
	type key struct {
		player int
		monday int64
	}
	known := map[key]Week{}
	for _, w := range weeks {
		known[key{w.Player, w.Monday.Unix()}] = w
	}
	for _, monday := range mondays(weeks) {
		for n, p := range players {
			w := known[key{n, monday.Unix()}]
			w.Player, w.Monday = n, monday
			visit(p, w)
		}
	}
}

// mondays are the weeks there are, in order.
func mondays(weeks []Week) (out []time.Time) {
	if len(weeks) == 0 {
		return nil
	}
	first, last := weeks[0].Monday, weeks[0].Monday
	for _, w := range weeks {
		if w.Monday.Before(first) {
			first = w.Monday
		}
		if w.Monday.After(last) {
			last = w.Monday
		}
	}
	for at := first; !at.After(last); at = at.AddDate(0, 0, 7) {
		out = append(out, at)
	}
	return out
}

// File is one file of a OneRoster archive.
type File struct {
	Name  string
	Lines [][]string
}

// OneRoster is the gradebook as files: a category for practice with an item for each week, one
// for tests with an item for each, and a result for each player. Numbers of weeks, tests and
// results are the same each time, so that a later file brings an earlier one up to date.
func OneRoster(c Class, players []Player, weeks []Week, tests []Test, now time.Time) []File {
	changed := now.UTC().Format("2006-01-02T15:04:05.000Z")
	category := c.ID + "-practice"
	items := [][]string{{
		"sourcedId", "status", "dateLastModified", "title", "description", "assignDate", "dueDate", "classSourcedId",
		"categorySourcedId", "resultValueMin", "resultValueMax",
	}}
	for _, monday := range mondays(weeks) {
		items = append(items, []string{
			itemID(c, monday), "active", changed, "Practice, week of " + monday.Format("2 January 2006"),
			fmt.Sprintf("Days practiced, up to %d", c.Goal), monday.Format(time.DateOnly),
			monday.AddDate(0, 0, 6).Format(time.DateOnly), c.ID, category, "0", strconv.Itoa(c.Goal),
		})
	}
	results := [][]string{{
		"sourcedId", "status", "dateLastModified", "lineItemSourcedId", "studentSourcedId", "scoreStatus", "score",
		"scoreDate", "comment",
	}}
	eachWeek(players, weeks, func(p Player, w Week) {
		item := itemID(c, w.Monday)
		results = append(results, []string{
			item + "-" + p.ID, "active", changed, item, p.ID, "fully graded", strconv.Itoa(c.Score(w)),
			w.Monday.AddDate(0, 0, 6).Format(time.DateOnly), fmt.Sprintf("%d takes, %.0f minutes", w.Takes, w.Minutes),
		})
	})
	testing := c.ID + "-tests"
	for _, t := range tests {
		items = append(items, []string{
			t.ID, "active", changed, t.Title, t.Says, t.Due, t.Due, c.ID, testing, "0", strconv.Itoa(t.Most),
		})
		for _, m := range t.Results {
			results = append(results, []string{
				t.ID + "-" + m.Player,
				"active",
				changed,
				t.ID,
				m.Player,
				"fully graded",
				strconv.Itoa(m.Points),
				t.Due,
				m.Word,
			})
		}
	}
	return []File{
		{"manifest.csv", manifest()},
		{"categories.csv", [][]string{
			{"sourcedId", "status", "dateLastModified", "title"},
			{category, "active", changed, "Practice"},
			{testing, "active", changed, "Tests"},
		}},
		{"lineItems.csv", items},
		{"results.csv", results},
	}
}

func itemID(c Class, monday time.Time) string { return c.ID + "-" + monday.Format(time.DateOnly) }

// manifest says which files are there, whole ("bulk").
func manifest() [][]string {
	out := [][]string{
		{"propertyName", "value"},
		{"manifest.version", "1.0"},
		{"oneroster.version", "1.2"},
		{"source.systemName", "Early Chorus"},
		{"source.systemCode", "early-chorus"},
	}
	for _, f := range []string{
		"academicSessions", "categories", "classes", "classResources", "courses", "courseResources", "demographics",
		"enrollments", "lineItemLearningObjectiveIds", "lineItems", "lineItemScoreScales", "orgs", "resources",
		"resultLearningObjectiveIds", "results", "resultScoreScales", "roles", "scoreScales", "userProfiles",
		"userResources", "users",
	} {
		value := "absent"
		if f == "categories" || f == "lineItems" || f == "results" {
			value = "bulk"
		}
		out = append(out, []string{"file." + f, value})
	}
	return out
}
