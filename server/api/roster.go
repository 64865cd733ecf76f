package api

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"strconv"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"

	"earlychorus/core/roster"
	"earlychorus/server/store"
)

// RosterPreview is what a file would do to a class's list.
type RosterPreview struct {
	Format  string          `json:"format" enum:"csv,oneroster"`
	Columns []roster.Column `json:"columns" nullable:"false"`
	Rows    []RosterRow     `json:"rows" nullable:"false"`
}

// RosterRow is one player of it.
type RosterRow struct {
	roster.Row
	Action   string `json:"action" enum:"add,change,same"`
	PlayerID string `json:"player_id" doc:"of the player it changes"`
}

const largestRoster = 3 << 20

// previewRoster reads a file and says, row by row, what it would do.
func (a *API) previewRoster(w http.ResponseWriter, r *http.Request) {
	if !isUUID(chi.URLParam(r, "class")) {
		fail(w, store.ErrNotFound)
		return
	}
	class, err := a.Store.ClassOfDirector(r.Context(), chi.URLParam(r, "class"), a.who(r.Context()).DirectorID)
	if err != nil {
		fail(w, err)
		return
	}
	file, err := io.ReadAll(r.Body)
	if err != nil {
		fail(
			w,
			huma.NewError(
				http.StatusRequestEntityTooLarge,
				"The file is larger than 2 MB. Save just the list of players.",
			),
		)
		return
	}
	list, err := roster.Read(file, r.URL.Query().Get("class_id"))
	var said roster.ReadError
	if errors.As(err, &said) {
		fail(w, huma.Error422UnprocessableEntity(said.Remedy))
		return
	}
	if err != nil {
		fail(w, err)
		return
	}
	players, err := a.Store.Players(r.Context(), class.ID)
	if err != nil {
		fail(w, err)
		return
	}
	out := RosterPreview{Format: list.Format, Columns: list.Columns, Rows: []RosterRow{}}
	for _, row := range list.Rows {
		out.Rows = append(out.Rows, against(players, row))
	}
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(out) // the asker may be gone
}

// against compares a row with a class's players.
func against(players []store.Player, row roster.Row) RosterRow {
	known := make([]roster.Person, len(players))
	for n, p := range players {
		known[n] = p.Person
	}
	row, means := row.Against(known)
	switch {
	case means < 0:
		return RosterRow{Row: row, Action: "add"}
	case row.Person == known[means]:
		return RosterRow{Row: row, Action: "same", PlayerID: players[means].ID}
	}
	return RosterRow{Row: row, Action: "change", PlayerID: players[means].ID}
}

type rosterInput struct {
	ClassPath
	Body struct {
		Rows []RosterRow `json:"rows" nullable:"false" maxItems:"500"`
	}
}

// saveRoster adds and changes players: all rows, or none while one has a
// problem.
func (a *API) saveRoster(ctx context.Context, in *rosterInput) (*setUpOutput, error) {
	class, err := a.Store.ClassOfDirector(ctx, in.Class, a.who(ctx).DirectorID)
	if err != nil {
		return nil, problem(err)
	}
	var added, changed []store.Player
	var details []error
	for n, row := range in.Body.Rows {
		row.Row = row.Check()
		for _, p := range row.Problems {
			details = append(
				details,
				&huma.ErrorDetail{Location: "body.rows[" + strconv.Itoa(n) + "]." + p.Field, Message: p.Remedy},
			)
		}
		player := store.Player{ClassID: class.ID, Person: row.Person}
		if row.PlayerID == "" {
			player.ID = store.NewID()
			added = append(added, player)
			continue
		}
		if _, err := a.Store.PlayerOfClass(ctx, class.ID, row.PlayerID); err != nil {
			return nil, problem(err)
		}
		player.ID = row.PlayerID
		changed = append(changed, player)
	}
	if len(details) > 0 {
		return nil, huma.Error422UnprocessableEntity(
			"Nothing was taken in. Mend the rows that are marked, then try again.",
			details...)
	}
	if err := a.Store.SaveRoster(ctx, added, changed); err != nil {
		return nil, problem(err)
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

type playerPath struct {
	ClassPath
	Player string `path:"player" format:"uuid"`
}

func (a *API) takeOffRoster(ctx context.Context, in *playerPath) (*setUpOutput, error) {
	class, err := a.Store.ClassOfDirector(ctx, in.Class, a.who(ctx).DirectorID)
	if err == nil {
		err = a.Store.TakeOffRoster(ctx, class.ID, in.Player, a.Now().UTC())
	}
	if err != nil {
		return nil, problem(err)
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

// forgetPlayer deletes a player for good: every row, every recording, every voice
// note. The rows go first: what is left of the sounds is nobody's.
func (a *API) forgetPlayer(ctx context.Context, in *playerPath) (*setUpOutput, error) {
	class, err := a.Store.ClassOfDirector(ctx, in.Class, a.who(ctx).DirectorID)
	if err != nil {
		return nil, problem(err)
	}
	everything, err := a.Store.ForgetPlayer(ctx, class.ID, in.Player)
	if err != nil {
		return nil, problem(err)
	}
	for _, id := range everything.Takes {
		if err := a.Recordings.Delete(ctx, id); err != nil {
			return nil, problem(err)
		}
	}
	for _, id := range everything.Voices {
		if err := a.Recordings.Delete(ctx, voiceKey(id)); err != nil {
			return nil, problem(err)
		}
	}
	return a.showSetUp(ctx, &in.ClassPath)
}
