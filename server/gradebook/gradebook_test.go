package gradebook_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/gradebook"
)

var (
	winds   = gradebook.Class{ID: "c1", Title: "Winds", Goal: 4}
	players = []gradebook.Player{{ID: "u1", First: "Wren", Last: "Ash"}, {ID: "u2", First: "Ivo", Last: "Bell"}}
	monday  = time.Date(2026, 11, 2, 0, 0, 0, 0, time.UTC)
	weeks   = []gradebook.Week{
		{
			Player:  0,
			Monday:  monday,
			Days:    6,
			Takes:   20,
			Minutes: 31.25,
			Clean:   9,
		},
		{
			Player:  1,
			Monday:  monday.AddDate(0, 0, 14),
			Days:    1,
			Takes:   2,
			Minutes: 3,
		},
	}
)

var tests = []gradebook.Test{{
	ID:      "t1",
	Title:   "Long tone",
	Due:     "2026-11-13",
	Most:    3,
	Results: []gradebook.Mark{{Player: "u2", Points: 2, Word: "nearly"}},
}}

// Every player has a line for every week from the first to the last: a week without practice is
// nought, and no gap.
func TestEveryWeekOfEveryPlayerIsThere(t *testing.T) {
	list := gradebook.List(winds, players, weeks)
	require.Len(t, list, 1+3*2)
	assert.Equal(t, []string{"2026-11-02", "u1", "Wren", "Ash", "", "6", "20", "31.2", "9", "4", "4"}, list[1])
	assert.Equal(t, []string{"2026-11-09", "u2", "Ivo", "Bell", "", "0", "0", "0.0", "0", "0", "4"}, list[4])
	assert.Len(t, gradebook.List(winds, players, nil), 1)
}

// What one file says the others have: by their numbers, as the standard asks (from memory).
func TestOneRosterFilesAgree(t *testing.T) {
	files := map[string][][]string{}
	for _, f := range gradebook.OneRoster(winds, players, weeks, tests, monday) {
		files[f.Name] = f.Lines
	}
	items, results := files["lineItems.csv"], files["results.csv"]
	require.Len(t, items, 1+3+1)
	require.Len(t, results, 1+6+1)
	known := map[string]bool{}
	for _, i := range items[1:] {
		known[i[0]] = true
	}
	for _, i := range items[1:4] {
		assert.Equal(t, files["categories.csv"][1][0], i[8])
		assert.Equal(t, "4", i[10])
	}
	assert.Equal(t, files["categories.csv"][2][0], items[4][8])
	seen := map[string]bool{}
	for _, r := range results[1:] {
		assert.True(t, known[r[3]], r)
		assert.False(t, seen[r[0]], "a number is one result's")
		seen[r[0]] = true
	}
	assert.Equal(t, "2026-11-08", items[1][6])
	assert.Contains(t, files["manifest.csv"], []string{"file.results", "bulk"})
	assert.Contains(t, files["manifest.csv"], []string{"file.users", "absent"})
	again := gradebook.OneRoster(winds, players, weeks, tests, monday.AddDate(0, 1, 0))
	assert.Equal(t, items[1][0], again[2].Lines[1][0], "a later file brings the earlier up to date")
}
