package api

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/ladder"
	"earlychorus/core/progress"
	"earlychorus/core/verdict"
	"earlychorus/server/growth"
	"earlychorus/server/print"
	"earlychorus/server/store"
)

const (
	reportWeeks = 10
	lately      = 14 // days
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
	today := class.Day(a.Now())
	g, err := growth.Of(r.Context(), a.Store, class, player, reportWeeks, today)
	if err != nil {
		return err
	}
	words, err := a.wordsHome(r.Context(), class, player, g)
	if err != nil {
		return err
	}
	var out bytes.Buffer
	report := reportOf(g, words, class, today)
	if err := print.HomeReport(&out, print.PaperOf(class.School.TimeZone), report); err != nil {
		return err
	}
	servePDF(w, out.Bytes(), "report.pdf")
	return nil
}

// wordsHome gathers what a family's words are made of.
func (a *API) wordsHome(
	ctx context.Context, class store.Class, player string, g growth.GrowthView,
) (progress.Home, error) {
	p, err := a.Store.PlayerOfClass(ctx, class.ID, player)
	if err != nil {
		return progress.Home{}, err
	}
	today := class.Day(a.Now())
	since := today.AddDate(0, 0, 1-lately)
	heard, err := a.Store.HeardOf(ctx, player, since, today)
	if err != nil {
		return progress.Home{}, err
	}
	facts := progress.AtHome{
		First:  p.FirstName,
		Days:   len(g.Days),
		Growth: progress.Growth{Hold: g.Hold, Centre: g.Centre, Steadiness: g.Steadiness},
	}
	for _, week := range g.Weeks {
		facts.Growth.Weeks = append(facts.Growth.Weeks, week.Week)
	}
	for _, day := range g.Days {
		if day >= since.Format(time.DateOnly) {
			facts.LateDays++
		}
	}
	for _, l := range g.Ladders {
		for _, turn := range l.History {
			if turn.Move == ladder.Up {
				facts.Rungs++
			}
		}
	}
	for _, take := range heard {
		if take.Result == verdict.Clean {
			facts.Clean++
		} else {
			facts.Causes = append(facts.Causes, take.Cause)
		}
		facts.Takes++
	}
	return progress.HomeOf(facts), nil
}

// reportOf is what a family reads. Voice notes cannot be printed, and no other child is named.
func reportOf(g growth.GrowthView, words progress.Home, class store.Class, today time.Time) print.Report {
	// Ten weeks: from one report to the next, in most schools (common practice, no published
	// source).
	from := store.Monday(today).AddDate(0, 0, -7*(reportWeeks-1))
	r := print.Report{
		School:     class.School.Name,
		Class:      class.Name,
		Player:     g.Player.Name,
		Instrument: g.Instrument,
		Span:       from.Format("2 January") + " to " + today.Format("2 January 2006"),
		Played:     fmt.Sprintf("Practiced on %d of these days.", len(g.Days)),
		Well:       words.Well,
		Try:        words.Try,
		Help:       words.Help,
	}
	if len(g.Days) == 0 {
		r.Played = "Nothing was recorded in these weeks."
	}
	hold := print.ReportLine{Title: "The longest note of each week, in seconds", Unit: "s"}
	days := print.ReportLine{Title: "Days of practice in each week", Unit: ""}
	for _, week := range g.Weeks {
		monday, _ := time.Parse(time.DateOnly, week.Monday)
		// A week that was not played is a gap in the line and no fall to nought.
		if week.BestHold > 0 {
			hold.Points = append(hold.Points, print.ReportPoint{Monday: monday, Value: week.BestHold})
		}
		if week.Days > 0 {
			days.Points = append(days.Points, print.ReportPoint{Monday: monday, Value: float64(week.Days)})
		}
	}
	// Nothing is drawn of what was never measured.
	for _, l := range []print.ReportLine{hold, days} {
		if len(l.Points) > 0 {
			r.Lines = append(r.Lines, l)
		}
	}
	for _, l := range g.Ladders {
		r.Ladders = append(r.Ladders, fmt.Sprintf("%s: step %d of %d", l.Name, l.Rung, len(l.Rungs)))
	}
	for _, c := range g.Comments {
		// A voice note cannot be printed; its place is on the screen.
		if c.Kind != "voice" {
			r.Comments = append(r.Comments, "“"+c.Body+"”")
		}
	}
	return r
}
