package api

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"

	"earlychorus/core/roster"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// RosterPreview is what a file would do to a class's list.
type RosterPreview struct {
	Format  string          `json:"format" enum:"csv,oneroster"`
	Columns []roster.Column `json:"columns" nullable:"false"`
	Rows    []RosterRow     `json:"rows" nullable:"false"`

	Meanings []string        `json:"meanings" doc:"what a column may be said to mean" nullable:"false"`
	Classes  []roster.Choice `json:"classes" doc:"of a file of several: one has to be chosen" nullable:"false"`
}

// RosterRow is one player of it.
type RosterRow struct {
	roster.Row
	Action   string `json:"action" enum:"add,change,same,leave"`
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
	how, err := a.howToRead(r, class)
	if err != nil {
		return err
	}
	// The bytes as they are: which encoding they are in is part of reading them.
	list, err := roster.Read(file, how)
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
	out := RosterPreview{
		Format:   list.Format,
		Columns:  list.Columns,
		Meanings: roster.Meanings(),
		Classes:  append([]roster.Choice{}, list.Classes...),
		Rows:     compared(list, players),
	}
	answerJSON(w, out)
	return nil
}

// howToRead is what was said of the file by hand, and what the school said of its lists before.
func (a *API) howToRead(r *http.Request, class store.Class) (how roster.How, err error) {
	q := r.URL.Query()
	how.ClassID, how.Headings = q.Get("class_id"), roster.Headings(q.Get("headings"))
	for _, m := range q["meaning"] {
		if m != "" && !slices.Contains(roster.Meanings(), m) {
			return how, problem.Input("meaning", "choose what the column means")
		}
		how.Meanings = append(how.Meanings, m)
	}
	how.Taught, err = a.Store.ListWords(r.Context(), class.SchoolID)
	return how, err
}

// compared says, row by row, what a list would do. Who left is told apart by the school's
// number alone: a name may be written otherwise.
func compared(list roster.List, players []store.Player) []RosterRow {
	out := []RosterRow{}
	named := map[string]bool{}
	for _, row := range list.Rows {
		named[row.ExternalID] = true
		r := against(players, row)
		if row.Leaves {
			if r.PlayerID == "" {
				continue // never was here
			}
			r.Action = "leave"
		}
		out = append(out, r)
	}
	for _, p := range players {
		if list.Whole && p.ExternalID != "" && !named[p.ExternalID] {
			out = append(out, RosterRow{
				Row:      roster.Row{Person: p.Person, Leaves: true, Problems: []roster.Problem{}},
				Action:   "leave",
				PlayerID: p.ID,
			})
		}
	}
	return out
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
		Rows    []RosterRow     `json:"rows" nullable:"false" maxItems:"1500"`
		Columns []roster.Column `json:"columns,omitempty" doc:"as they were understood, where it was said by hand" maxItems:"200"`
	}
}

// saveRoster adds, changes and takes off players: all rows, or none while one has a problem.
// What was said of the list by hand the school need not say again.
func (a *API) saveRoster(ctx context.Context, in *rosterInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	asked, err := a.rosterAsked(ctx, class, in)
	if err != nil {
		return nil, err
	}
	there, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	if len(there)+len(asked.added)-len(asked.leaving) > store.MostPlayers {
		return nil, problem.Input(
			"rows",
			fmt.Sprintf("a class holds %d players; make a second class", store.MostPlayers),
		)
	}
	if err := a.Store.SaveRoster(ctx, asked.added, asked.changed); err != nil {
		return nil, err
	}
	for _, id := range asked.leaving {
		if err := a.Store.TakeOffRoster(ctx, class.ID, id, a.Now().UTC()); err != nil {
			return nil, err
		}
	}
	if err := a.Store.EndSessionsOf(ctx, store.RolePlayer, asked.leaving...); err != nil {
		return nil, err
	}
	if err := a.Store.LearnList(ctx, class.SchoolID, in.Body.Columns, asked.rows); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

// rosterChange is what rows ask for.
type rosterChange struct {
	added, changed []store.Player
	leaving        []string
	rows           []roster.Row
}

// rosterAsked checks rows again: what the page sends may have been changed since the preview.
func (a *API) rosterAsked(ctx context.Context, class store.Class, in *rosterInput) (out rosterChange, err error) {
	var details []problem.Detail
	for n, row := range in.Body.Rows {
		if row.PlayerID != "" {
			// A number of another class's player must not move that player here.
			if _, err := a.Store.PlayerOfClass(ctx, class.ID, row.PlayerID); err != nil {
				return out, err
			}
		}
		if row.Action == "leave" {
			out.leaving = append(out.leaving, row.PlayerID)
			continue
		}
		row.Row = row.Check()
		for _, p := range row.Problems {
			details = append(
				details,
				problem.Detail{Field: fmt.Sprintf("body.rows[%d].%s", n, p.Field), Remedy: p.Remedy},
			)
		}
		out.rows = append(out.rows, row.Row)
		player := store.Player{ID: row.PlayerID, ClassID: class.ID, Person: row.Person}
		if player.ID == "" {
			player.ID = store.NewID()
			out.added = append(out.added, player)
			continue
		}
		out.changed = append(out.changed, player)
	}
	if len(details) > 0 {
		return out, problem.Error{
			Kind:    problem.Unusable,
			Remedy:  "Nothing was taken in. Mend the rows that are marked, then try again.",
			Details: details,
		}
	}
	return out, nil
}

// PlayerPath is a player of the class in the address; one of another class is not
// found.
type PlayerPath struct {
	ClassPath
	Player string `path:"player" format:"uuid"`
}

// takeOffRoster takes a player off the list, and out: no PIN and no open session lets
// them in any more. The takes stay with the class; forgetting a player for good is
// another route.
func (a *API) takeOffRoster(ctx context.Context, in *PlayerPath) (*setUpOutput, error) {
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

type forgottenOutput struct {
	Body struct {
		store.Forgotten
		BackupDays int `json:"backup_days" doc:"how long nightly backups still hold it; 0: none is made here, ask whoever makes them"`
	}
}

// forgetPlayer deletes a player for good: every row, every recording, every voice
// note. The rows go first: what is left of the sounds is nobody's. It says what it did.
func (a *API) forgetPlayer(ctx context.Context, in *PlayerPath) (*forgottenOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	out := &forgottenOutput{}
	out.Body.BackupDays = a.BackupDays
	sounds, what, err := a.Store.ForgetPlayer(ctx, class.ID, in.Player)
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
	waiting, err := a.Recordings.WaitingOf(ctx, in.Player, "")
	if err != nil {
		return nil, err
	}
	if err := a.Recordings.DropPartsOf(ctx, in.Player); err != nil {
		return nil, err
	}
	out.Body.Forgotten = what
	out.Body.Parts = waiting.Takes
	return out, nil
}
