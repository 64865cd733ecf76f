package api

import (
	"bytes"
	"fmt"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/server/growth"
	"earlychorus/server/print"
	"earlychorus/server/store"
)

const (
	reportWeeks = 10
	reportWords = "Longest hold: one breath, one note, as long as it stays beautiful. From the middle: how far a " +
		"note lies from where it should, in hundredths of a half step; nearer is better. " +
		"Waver: how far a note moves to and fro. A harder step makes each of them worse for a while. These are the " +
		"player's own numbers, compared with nobody else's."
)

// printReport answers a page for a player's home.
func (a *API) printReport(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err == nil && !store.IsID(chi.URLParam(r, "player")) {
		err = store.ErrNotFound
	}
	if err != nil {
		return err
	}
	return a.serveReport(w, r, class, chi.URLParam(r, "player"))
}

// serveReport prints the page for home of a player of a class.
func (a *API) serveReport(w http.ResponseWriter, r *http.Request, class store.Class, player string) error {
	g, err := growth.Of(r.Context(), a.Store, class, player, reportWeeks, class.Day(a.Now()))
	if err != nil {
		return err
	}
	var out bytes.Buffer
	paper := print.PaperOf(class.School.TimeZone)
	if err := print.HomeReport(&out, paper, reportOf(g, class, class.Day(a.Now()))); err != nil {
		return err
	}
	servePDF(w, out.Bytes(), "report.pdf")
	return nil
}

// reportOf picks what a family reads from what a director sees: the lines of growth,
// ladders and words. Voice notes cannot be printed, and no other child is named.
func reportOf(g growth.GrowthView, class store.Class, today time.Time) print.Report {
	// Ten weeks: from one report to the next, in most schools (common practice, no published
	// source).
	from := store.Monday(today).AddDate(0, 0, -7*(reportWeeks-1))
	r := print.Report{
		School:     class.School.Name,
		Class:      class.Name,
		Player:     g.Player.Name,
		Instrument: g.Instrument,
		Words:      reportWords,
		Span:       from.Format("2 January") + " to " + today.Format("2 January 2006"),
		Played:     fmt.Sprintf("Played on %d of these days.", len(g.Days)),
	}
	hold := print.ReportLine{Title: "Longest hold", Says: g.Hold.Says, Unit: "s"}
	centre := print.ReportLine{Title: "In tune (average distance)", Says: g.Centre.Says, Unit: "cents"}
	steady := print.ReportLine{Title: "Waver", Says: g.Steadiness.Says, Unit: "cents"}
	for _, week := range g.Weeks {
		monday, _ := time.Parse(time.DateOnly, week.Monday)
		// A week that was not played is a gap in the line and no fall to nought.
		if week.BestHold > 0 {
			hold.Points = append(hold.Points, print.ReportPoint{Monday: monday, Value: week.BestHold})
		}
		if week.Notes > 0 {
			centre.Points = append(centre.Points, print.ReportPoint{Monday: monday, Value: week.Centre})
			steady.Points = append(steady.Points, print.ReportPoint{Monday: monday, Value: week.Steadiness})
		}
	}
	r.Tone = g.Tone.Says
	// Nothing is drawn of what was never measured.
	for _, l := range []print.ReportLine{hold, centre, steady} {
		if len(l.Points) > 0 {
			r.Lines = append(r.Lines, l)
		}
	}
	for _, l := range g.Ladders {
		r.Ladders = append(
			r.Ladders,
			fmt.Sprintf("%s: rung %d of %d, %s", l.Name, l.Rung, len(l.Rungs), l.Rungs[l.Rung-1]),
		)
	}
	for _, c := range g.Comments {
		// A voice note cannot be printed; its place is on the screen.
		if c.Kind != "voice" {
			r.Comments = append(r.Comments, "“"+c.Body+"”")
		}
	}
	return r
}
