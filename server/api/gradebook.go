package api

import (
	"archive/zip"
	"cmp"
	"encoding/csv"
	"net/http"
	"strconv"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/playtest"
	"earlychorus/server/gradebook"
	"earlychorus/server/problem"
	"earlychorus/server/spreadsheet"
	"earlychorus/server/store"
)

const (
	usualGoal     = 5   // days a week (common practice, no published source)
	longestGrades = 400 // days
	mostClassID   = 100 // letters of a class's number elsewhere
)

// takeOutGradebook answers practice by player and week: as a list (csv), or as OneRoster files
// (zip). ?from= and ?to= are days, goal the days a week that are the whole mark, class_id the
// class's number in the school's own system.
func (a *API) takeOutGradebook(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	from, to, err := spanOfGrades(r, class.Day(a.Now()))
	if err != nil {
		return err
	}
	book, err := bookAsked(r, class)
	if err != nil {
		return err
	}
	rows, err := a.Store.PracticeByWeek(r.Context(), class.ID, from, to)
	if err != nil {
		return err
	}
	listed, err := a.Store.Players(r.Context(), class.ID)
	if err != nil {
		return err
	}
	players, weeks := graded(listed, rows)
	if chi.URLParam(r, "format") == "csv" {
		attach(w, "text/csv; charset=utf-8", "gradebook.csv")
		out := spreadsheet.NewWriter(w)
		for _, line := range gradebook.List(book, players, weeks) {
			_ = out.Write(line) // the asker may be gone
		}
		out.Flush()
		return nil
	}
	steps, err := a.Store.TestsOf(r.Context(), class.ID, from)
	if err != nil {
		return err
	}
	tests, err := a.testsOf(r.Context(), class, steps)
	if err != nil {
		return err
	}
	attach(w, "application/zip", "gradebook.zip")
	if err := zipGrades(w, gradebook.OneRoster(book, players, weeks, gradedTests(tests), a.Now())); err != nil {
		panic(http.ErrAbortHandler) // part of it is on its way: a cut-off file must not look whole
	}
	return nil
}

// zipGrades packs files. Programs read them, no spreadsheet: they are plain CSV.
func zipGrades(w http.ResponseWriter, files []gradebook.File) error {
	out := zip.NewWriter(w)
	for _, f := range files {
		file, err := out.Create(f.Name)
		if err != nil {
			return err
		}
		if err := csv.NewWriter(file).WriteAll(f.Lines); err != nil {
			return err
		}
	}
	return out.Close()
}

// graded are a class's players and weeks as the gradebook knows them. Who has no number of the
// school's has our own.
func graded(listed []store.Player, rows []store.PracticeWeek) ([]gradebook.Player, []gradebook.Week) {
	players, at := make([]gradebook.Player, len(listed)), map[string]int{}
	for n, p := range listed {
		at[p.ID] = n
		players[n] = gradebook.Player{
			ID:         numberOf(p),
			First:      p.FirstName,
			Last:       p.LastName,
			Instrument: p.Instrument,
		}
	}
	weeks := []gradebook.Week{}
	for _, r := range rows {
		n, ok := at[r.PlayerID]
		if !ok {
			continue // left meanwhile
		}
		weeks = append(weeks, gradebook.Week{
			Player:  n,
			Monday:  r.Monday.UTC(),
			Days:    r.Days,
			Takes:   r.Takes,
			Minutes: r.Minutes,
			Clean:   r.Clean,
		})
	}
	return players, weeks
}

// gradedTests are tests as the gradebook knows them; who is excused or has not handed in has
// no result.
func gradedTests(tests []TestView) (out []gradebook.Test) {
	for _, t := range tests {
		test := gradebook.Test{
			ID:    t.StepID,
			Title: t.Name,
			Says:  t.Sentence,
			Due:   t.Due,
			Most:  playtest.MostPoints,
		}
		for _, p := range t.Players {
			if points := playtest.Points(p.Result); points > 0 {
				test.Results = append(
					test.Results,
					gradebook.Mark{Player: numberOf(p.person), Points: points, Word: string(p.Result)},
				)
			}
		}
		out = append(out, test)
	}
	return out
}

// numberOf is the school's own number of a player, or ours where the list has none.
func numberOf(p store.Player) string { return cmp.Or(p.ExternalID, p.ID) }

// spanOfGrades reads the days that are asked for: whole weeks, ten of them unless it is said.
func spanOfGrades(r *http.Request, today time.Time) (from, to time.Time, err error) {
	from, to = store.Monday(today).AddDate(0, 0, -7*9), today
	for name, day := range map[string]*time.Time{"from": &from, "to": &to} {
		if said := r.URL.Query().Get(name); said != "" {
			if *day, err = time.Parse(time.DateOnly, said); err != nil {
				return from, to, problem.Input(name, "write the day as 2026-09-02")
			}
		}
	}
	from = store.Monday(from)
	if to.Before(from) || to.Sub(from) > longestGrades*24*time.Hour {
		return from, to, problem.Input("to", "choose a day after the first, within a school year")
	}
	return from, to, nil
}

// bookAsked reads whose gradebook it is, and what the whole mark is.
func bookAsked(r *http.Request, class store.Class) (gradebook.Class, error) {
	q := r.URL.Query()
	book := gradebook.Class{ID: class.ID, Title: class.Name, Goal: usualGoal}
	if id := q.Get("class_id"); id != "" {
		if len(id) > mostClassID {
			return book, problem.Input("class_id", "write the class’s number in your own system")
		}
		book.ID = id
	}
	if said := q.Get("goal"); said != "" {
		goal, err := strconv.Atoi(said)
		if err != nil || goal < 1 || goal > 7 {
			return book, problem.Input("goal", "choose from 1 to 7 days a week")
		}
		book.Goal = goal
	}
	return book, nil
}
