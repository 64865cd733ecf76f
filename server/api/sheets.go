package api

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strconv"
	"strings"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/notation"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// sheetFormats are the ways a day's sheet goes out.
var sheetFormats = map[string]struct {
	mime  string
	write func(io.Writer, notation.Sheet) error
}{
	"musicxml": {"application/vnd.recordare.musicxml+xml", notation.WriteMusicXML},
	"mid":      {"audio/midi", notation.WriteMIDI},
	"txt":      {"text/plain; charset=utf-8", notation.WriteText},
	"json": {"application/json", func(w io.Writer, s notation.Sheet) error {
		return json.NewEncoder(w).Encode(s)
	}},
}

// takeOutSheet answers a day of a plan as one instrument reads it.
func (a *API) takeOutSheet(w http.ResponseWriter, r *http.Request) error {
	format, known := sheetFormats[chi.URLParam(r, "format")]
	if !known {
		return store.ErrNotFound
	}
	class, p, day, at, err := a.dayAsked(r)
	if err != nil {
		return err
	}
	q := r.URL.Query()
	stage, _ := strconv.Atoi(q.Get("stage")) // 0 is taken as the first
	who, err := NotationAsked{
		Instrument: q.Get("instrument"),
		Variant:    q.Get("variant"),
		Stage:      max(1, scores.Stage(stage)),
	}.player(class, a.weekAsked(class, chi.URLParam(r, "monday")))
	if err != nil {
		return err
	}
	sheet, err := notation.SheetOf(p, day, at, who, class.Conventions())
	if err != nil {
		return err
	}
	var out bytes.Buffer
	if err := format.write(&out, sheet); err != nil {
		return err
	}
	// Named by instrument and day: a folder of them sorts as a director looks for them.
	name := fmt.Sprintf("%s-%s.%s", who.Instrument.Key, r.URL.Query().Get("day"), chi.URLParam(r, "format"))
	w.Header().Set("Content-Type", format.mime)
	w.Header().Set("Content-Disposition", `attachment; filename="`+name+`"`)
	_, _ = w.Write(out.Bytes()) // the asker may be gone
	return nil
}

// dayAsked reads which day of which plan a plain request is for.
func (a *API) dayAsked(r *http.Request) (class store.Class, p plan.Plan, day plan.Day, at plan.Place, err error) {
	// Plain routes have no document that would check the number for them.
	if !store.IsID(chi.URLParam(r, "class")) {
		return class, p, 0, "", store.ErrNotFound
	}
	class, monday, err := a.week(r.Context(), WeekPath{chi.URLParam(r, "class"), chi.URLParam(r, "monday")})
	if err != nil {
		return class, p, 0, "", err
	}
	n, err := strconv.Atoi(r.URL.Query().Get("day"))
	if err != nil || n < 0 || n > 6 {
		return class, p, 0, "", problem.Input("day", "name the day as 0 for Monday to 6 for Sunday")
	}
	at = plan.Place(r.URL.Query().Get("at"))
	if at != plan.InClass && at != plan.AtHome {
		return class, p, 0, "", problem.Input("at", "say class or home")
	}
	week, items, err := a.Store.PlanOf(r.Context(), class.ID, monday)
	return class, plan.Plan{Name: titleOf(class, week), Items: items}, plan.Day(n), at, err
}

// titleOf is the class, and the week's name where somebody gave it one.
func titleOf(class store.Class, week store.Plan) string {
	if week.Name == "" || week.Name == "Week" {
		return class.Name
	}
	return class.Name + ": " + week.Name
}

// calendarWeeks is how far back and ahead of today a feed looks.
const (
	calendarBack  = 2
	calendarAhead = 8
)

// serveFeed answers a class's calendar to whoever has its address. It says what
// is planned, and nobody's name.
func (a *API) serveFeed(w http.ResponseWriter, r *http.Request) error {
	// The token is the whole of the right: calendar programs cannot sign in.
	token, ok := strings.CutSuffix(chi.URLParam(r, "feed"), ".ics")
	if !ok || !store.IsID(token) {
		return store.ErrNotFound
	}
	class, err := a.Store.ClassByFeed(r.Context(), token)
	if err != nil {
		return err
	}
	weeks, err := a.weeksAround(r.Context(), class)
	if err != nil {
		return err
	}
	var out bytes.Buffer
	if err := notation.WriteICalendar(&out, class.Name, weeks); err != nil {
		return err
	}
	w.Header().Set("Content-Type", "text/calendar; charset=utf-8")
	_, _ = w.Write(out.Bytes()) // the asker may be gone
	return nil
}

// weeksAround is the weeks a calendar shows: enough to look back, and as far ahead
// as anybody plans.
func (a *API) weeksAround(ctx context.Context, class store.Class) (out []notation.Week, err error) {
	this := store.Monday(class.Day(a.Now()))
	for n := -calendarBack; n <= calendarAhead; n++ {
		monday := this.AddDate(0, 0, 7*n)
		p, items, err := a.Store.PlanOf(ctx, class.ID, monday)
		if err != nil {
			return nil, err
		}
		if len(items) == 0 {
			continue
		}
		week := notation.Week{
			Plan:  plan.Plan{Name: p.Name, Items: items},
			Weeks: 1,
			Stamp: a.Now().UTC().Format("20060102T150405Z"),
			// Part of each event's number, which must stay the same or the calendar shows it twice.
			Host: "early-chorus",
		}
		for day := range week.Dates {
			week.Dates[day] = monday.AddDate(0, 0, day).Format("20060102")
		}
		out = append(out, week)
	}
	return out, nil
}

// largestExcerpt is more than a file of one line ever is.
const largestExcerpt = 3 << 20

// readExcerpt reads a line of music out of a MusicXML file.
func (a *API) readExcerpt(w http.ResponseWriter, r *http.Request) error {
	if _, err := a.classAsked(r); err != nil {
		return err
	}
	file, err := io.ReadAll(r.Body)
	if err != nil {
		// The reading was cut off at the limit; nothing else makes it fail here.
		return problem.Of(problem.TooLarge, "The file is larger than 2 MB: save just the line.", nil)
	}
	x, err := notation.ReadExcerpt(file)
	var said notation.ReadError
	if errors.As(err, &said) {
		return problem.Of(problem.Unusable, sentence(said.Error()), nil)
	}
	if err != nil {
		return err
	}
	answerJSON(w, x)
	return nil
}

// sentence makes a sentence of a remedy.
func sentence(s string) string { return strings.ToUpper(s[:1]) + s[1:] + "." }
