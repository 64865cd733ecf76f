package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"

	"earlychorus/core/roster"
	"earlychorus/server/problem"
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

// largestRoster is bytes, with room to spare over the 2 MB that the refusal names.
const largestRoster = 3 << 20

// previewRoster reads a file and says, row by row, what it would do.
func (a *API) previewRoster(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	file, err := io.ReadAll(r.Body)
	if err != nil {
		return problem.Of(problem.TooLarge, "The file is larger than 2 MB. Save just the list of players.", nil)
	}
	// The bytes as they are: which encoding they are in is part of reading them.
	list, err := roster.Read(file, r.URL.Query().Get("class_id"))
	var said roster.ReadError
	if errors.As(err, &said) {
		return problem.Of(problem.Unusable, said.Remedy, nil)
	}
	if err != nil {
		return err
	}
	players, err := a.Store.Players(r.Context(), class.ID)
	if err != nil {
		return err
	}
	out := RosterPreview{Format: list.Format, Columns: list.Columns, Rows: []RosterRow{}}
	for _, row := range list.Rows {
		out.Rows = append(out.Rows, against(players, row))
	}
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(out) // the asker may be gone
	return nil
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

// rosterInput is rows to save, all or none. 500 is more than any band has.
type rosterInput struct {
	ClassPath
	Body struct {
		Rows []RosterRow `json:"rows" nullable:"false" maxItems:"500"`
	}
}

// saveRoster adds and changes players: all rows, or none while one has a
// problem.
func (a *API) saveRoster(ctx context.Context, in *rosterInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	var added, changed []store.Player
	var details []problem.Detail
	for n, row := range in.Body.Rows {
		// Checked again: what the page sends may have been changed since the preview.
		row.Row = row.Check()
		for _, p := range row.Problems {
			details = append(
				details,
				problem.Detail{Field: fmt.Sprintf("body.rows[%d].%s", n, p.Field), Remedy: p.Remedy},
			)
		}
		player := store.Player{ClassID: class.ID, Person: row.Person}
		if row.PlayerID == "" {
			player.ID = store.NewID()
			added = append(added, player)
			continue
		}
		// A number of another class's player must not move that player here.
		if _, err := a.Store.PlayerOfClass(ctx, class.ID, row.PlayerID); err != nil {
			return nil, err
		}
		player.ID = row.PlayerID
		changed = append(changed, player)
	}
	if len(details) > 0 {
		return nil, problem.Error{
			Kind:    problem.Unusable,
			Remedy:  "Nothing was taken in. Mend the rows that are marked, then try again.",
			Details: details,
		}
	}
	there, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	if len(there)+len(added) > store.MostPlayers {
		return nil, problem.Input(
			"rows",
			fmt.Sprintf("a class holds %d players; make a second class", store.MostPlayers),
		)
	}
	if err := a.Store.SaveRoster(ctx, added, changed); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

// playerPath is a player of the class in the address; one of another class is not
// found.
type playerPath struct {
	ClassPath
	Player string `path:"player" format:"uuid"`
}

// takeOffRoster takes a player off the list, and out: no PIN and no open session lets
// them in any more. The takes stay with the class; forgetting a player for good is
// another route.
func (a *API) takeOffRoster(ctx context.Context, in *playerPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err == nil {
		err = a.Store.TakeOffRoster(ctx, class.ID, in.Player, a.Now().UTC())
	}
	if err == nil {
		err = a.Store.EndSessionsOf(ctx, store.RolePlayer, in.Player)
	}
	if err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

// forgetPlayer deletes a player for good: every row, every recording, every voice
// note. The rows go first: what is left of the sounds is nobody's.
func (a *API) forgetPlayer(ctx context.Context, in *playerPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	sounds, err := a.Store.ForgetPlayer(ctx, class.ID, in.Player)
	if err == nil {
		err = a.Store.EndSessionsOf(ctx, store.RolePlayer, in.Player)
	}
	if err != nil {
		return nil, err
	}
	for _, name := range sounds {
		if err := a.Recordings.Delete(ctx, name); err != nil {
			return nil, err
		}
	}
	if err := a.Recordings.DropPartsOf(ctx, in.Player); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}
