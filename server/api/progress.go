package api

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/server/spreadsheet"
	"earlychorus/server/store"
)

// takeOutProgress answers everything measured in a class as CSV or JSON, a line a
// note; docs/formats.md says what the columns are.
func (a *API) takeOutProgress(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	if chi.URLParam(r, "format") == "json" {
		return a.progressJSON(w, r, class)
	}
	attach(w, "text/csv; charset=utf-8", "progress.csv")
	// What a spreadsheet would run as a formula is made harmless there: a player may be called
	// "=1+1".
	out := spreadsheet.NewWriter(w)
	_ = out.Write(
		[]string{
			"day",
			"player_id",
			"first_name",
			"last_name",
			"instrument",
			"kind",
			"step_id",
			"take_id",
			"result",
			"word",
			"note",
			"sounding_midi",
			"good",
			"trusted",
			"centre_cents",
			"steadiness_cents",
			"held_s",
			"level_db",
			"clearness_db",
			"brightness_harmonics",
			"fullness_harmonics",
			"through",
		},
	)
	err = a.Store.EachProgress(r.Context(), class.ID, func(p store.Progress) error {
		return out.Write([]string{
			p.Day.Format(time.DateOnly),
			p.PlayerID,
			p.FirstName,
			p.LastName,
			p.Instrument,
			p.Kind,
			p.StepID,
			p.TakeID,
			p.Result,
			p.Word,
			strconv.Itoa(p.Number),
			strconv.Itoa(p.Sounding),
			strconv.FormatBool(p.Good),
			strconv.FormatBool(p.Trusted),
			// A tenth of a cent is finer than the ear; more digits would claim more than was measured.
			fmt.Sprintf("%.1f", p.Centre),
			fmt.Sprintf("%.1f", p.Steadiness),
			fmt.Sprintf("%.2f", p.Held),
			measured(p.LevelDB),
			measured(p.Clearness),
			measured(p.Brightness),
			measured(p.Fullness),
			p.Through,
		})
	})
	out.Flush()
	if err != nil {
		panic(http.ErrAbortHandler) // part of it is on its way: a cut-off file must not look whole
	}
	return nil
}

// measured is a number of a cell that is empty where there is none.
func measured(x *float64) string {
	if x == nil {
		return ""
	}
	return fmt.Sprintf("%.2f", *x)
}

// progressJSON writes a line for each note as it comes from the database: a year of
// a class does not fit in memory.
func (a *API) progressJSON(w http.ResponseWriter, r *http.Request, class store.Class) error {
	attach(w, "application/x-ndjson", "progress.ndjson")
	out := json.NewEncoder(w)
	if err := a.Store.EachProgress(
		r.Context(),
		class.ID,
		func(p store.Progress) error { return out.Encode(p) },
	); err != nil {
		panic(http.ErrAbortHandler)
	}
	return nil
}
