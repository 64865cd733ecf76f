// Package board is Today: a class's players by section, the day's steps across, and
// what they have in common.
package board

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/plan"
	"earlychorus/core/progress"
	"earlychorus/core/ribbon"
	"earlychorus/core/say"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// Today is the board: a class's players by section, the day's steps across.
type Today struct {
	Class    view.ClassName    `json:"class"`
	Day      string            `json:"day" format:"date"`
	Today    string            `json:"today" format:"date" doc:"the school's date now"`
	Steps    []BoardStep       `json:"steps" nullable:"false"`
	Sections []SectionRows     `json:"sections" nullable:"false"`
	Common   []progress.Common `json:"common" doc:"what sections and the class have in common, with the takes behind it" nullable:"false"`
	Guessed  int               `json:"guessed" doc:"wrong PINs that strangers tried today, when there were many"`
}

// BoardStep heads a column.
type BoardStep struct {
	ID       string         `json:"id"`
	Version  int            `json:"version"`
	Name     string         `json:"name" doc:"the kind's"`
	Sentence string         `json:"sentence"`
	Results  map[string]int `json:"results" doc:"how many players stand at each result, the director's word before the measured one; waiting and missing too"`
}

// SectionRows is a section's players.
type SectionRows struct {
	Name    string      `json:"name"`
	Played  int         `json:"played"`
	Players []PlayerRow `json:"players" nullable:"false"`
}

// PlayerRow is a player's line on the board.
type PlayerRow struct {
	ID         string      `json:"id"`
	Name       string      `json:"name"`
	Instrument string      `json:"instrument"`
	Cells      []BoardCell `json:"cells" nullable:"false" doc:"one for each step"`
}

// CellState is how things are with a player's step of the day.
type CellState string

const (
	Missing  CellState = "missing" // not played yet
	Waiting            = CellState(view.Waiting)
	Done               = CellState(view.Done)
	Failed             = CellState(view.Failed)
	NotAsked CellState = "not-asked" // the step is not for this instrument
	Excused  CellState = "excused"   // the player is asked for nothing of it today
)

// BoardCell is a player's latest take of a step.
type BoardCell struct {
	Written   string                   `json:"written" doc:"the notes the player reads"`
	TakeID    string                   `json:"take_id,omitempty"`
	State     CellState                `json:"state" doc:"not-asked: the step is not for this instrument; excused: the player is asked for nothing of it today" enum:"missing,waiting,done,failed,not-asked,excused"`
	Result    verdict.Result           `json:"result,omitempty" enum:"clean,nearly,not-yet,cant-tell"`
	Overruled bool                     `json:"overruled"`
	Deciding  string                   `json:"deciding,omitempty" doc:"the deciding measure in words"`
	Ribbon    view.Kept[ribbon.Ribbon] `json:"ribbon,omitempty"`
	Takes     int                      `json:"takes"`
	Comments  int                      `json:"comments"`
	Simulated bool                     `json:"simulated,omitempty" doc:"a simulated player made it"`
	Earlier   bool                     `json:"earlier" doc:"played before the step was last changed"`
}

// Of returns a class's board of a day; today is the school's date now. It asks a
// fixed number of questions, however many players and steps there are.
func Of(ctx context.Context, s *store.Store, class store.Class, day, today time.Time) (Today, error) {
	// What is asked at home: steps of the class alone are played together and not recorded.
	steps, err := s.StepsOn(ctx, class.ID, day, plan.AtHome)
	if err != nil {
		return Today{}, err
	}
	// A test is open for many days and has a page of its own.
	steps = slices.DeleteFunc(steps, func(step store.Step) bool { return step.Test != nil })
	b, err := open(ctx, s, class, day, len(steps))
	if err != nil {
		return Today{}, err
	}
	played, ticks, err := b.played(ctx, s, steps)
	if err != nil {
		return Today{}, err
	}
	out := Today{
		Class: view.ClassNameOf(class),
		Day:   view.Date(day),
		Today: view.Date(today),
		Steps: []BoardStep{},
	}
	for n, step := range steps {
		head, err := b.fill(n, step, columnOf(step, played, ticks))
		if err != nil {
			return Today{}, err
		}
		out.Steps = append(out.Steps, head)
	}
	out.Sections = b.rows()
	out.Common = b.common(played, out.Steps)
	return out, nil
}

// board is Today being put together.
type board struct {
	day      time.Time
	class    store.Class
	excused  []store.Exception
	sections []section
}

// section is a row of the score: flutes together, whatever their names.
type section struct {
	name    string
	members []member
}

// member is a player of the section with one cell for each step of the day.
type member struct {
	standing   store.Standing // what the player reads follows from it
	instrument instrument.Instrument
	cells      []BoardCell // by step
}

// open asks where the whole class stands with two queries, not with one for each
// player: a board of ninety opens as fast as one of nine.
func open(ctx context.Context, s *store.Store, class store.Class, day time.Time, steps int) (board, error) {
	players, err := s.Players(ctx, class.ID)
	if err != nil {
		return board{}, err
	}
	standings, err := s.StandingsOf(ctx, class, players)
	if err != nil {
		return board{}, err
	}
	excused, err := s.ExceptionsOn(ctx, class.ID, day)
	return board{
		day:      day,
		class:    class,
		excused:  excused,
		sections: sectionsOf(standings, steps),
	}, err
}

// sectionsOf groups players by section, in score order.
func sectionsOf(standings []store.Standing, steps int) (out []section) {
	for _, i := range instrument.Band() {
		for _, s := range standings {
			if s.Player.Instrument != i.Key {
				continue
			}
			// Instruments come in score order, so that a section's are next to each other.
			if len(out) == 0 || out[len(out)-1].name != i.Section {
				out = append(out, section{name: i.Section})
			}
			last := &out[len(out)-1]
			last.members = append(last.members, member{s, i, make([]BoardCell, steps)})
		}
	}
	return out
}

// played asks for the day's takes and ticks of all steps at once.
func (b board) played(ctx context.Context, s *store.Store, steps []store.Step) ([]store.Cell, []store.Tick, error) {
	ids := make([]string, len(steps))
	for n, step := range steps {
		ids[n] = step.ID
	}
	cells, err := s.Board(ctx, ids, b.day)
	if err != nil {
		return nil, nil, err
	}
	ticks, err := s.TicksOfSteps(ctx, ids, b.day)
	return cells, ticks, err
}

// column is what was done of one step, by player.
type column struct {
	played map[string]store.Cell
	ticked map[string]store.Tick
}

// columnOf sorts what the whole class played by who played it, for one step.
func columnOf(step store.Step, cells []store.Cell, ticks []store.Tick) column {
	out := column{map[string]store.Cell{}, map[string]store.Tick{}}
	for _, c := range cells {
		if c.StepID == step.ID {
			out.played[c.PlayerID] = c
		}
	}
	for _, t := range ticks {
		if t.StepID == step.ID {
			out.ticked[t.PlayerID] = t
		}
	}
	return out
}

// fill writes one step's column and returns its head.
func (b board) fill(at int, step store.Step, done column) (BoardStep, error) {
	item, err := step.Item()
	if err != nil {
		return BoardStep{}, err
	}
	head := BoardStep{
		ID:       step.ID,
		Version:  step.Version,
		Name:     item.Name(),
		Sentence: item.Step.Sentence(),
		Results:  map[string]int{},
	}
	reads := reader{item: item, day: b.day, known: map[string]reading{}}
	for _, s := range b.sections {
		for _, m := range s.members {
			r, err := reads.of(m.standing)
			if err != nil {
				return BoardStep{}, err
			}
			cell := b.cell(step, m, r, done)
			m.cells[at] = cell
			switch cell.State {
			// Not counted at all: flutes are not missing from what brass buzz.
			case NotAsked:
			case Done:
				head.Results[string(cell.Result)]++
			default:
				head.Results[string(cell.State)]++
			}
		}
	}
	return head, nil
}

// cell is how things are with one player and step.
func (b board) cell(step store.Step, m member, r reading, done column) BoardCell {
	playerID := m.standing.Player.ID
	teller := say.For(m.instrument, b.class.Conventions(), nil)
	if !r.asked {
		return BoardCell{State: NotAsked}
	}
	// A tick has no recording: it is done and there is nothing to wait for.
	if t, ticked := done.ticked[playerID]; ticked {
		return BoardCell{
			State:    Done,
			Result:   t.Result,
			Deciding: view.Short(teller, t.Conclusion, t.Short),
			Takes:    1,
			Earlier:  t.StepVersion != step.Version,
		}
	}
	if c, played := done.played[playerID]; played {
		return cellOf(c, step, teller)
	}
	// Asked only now: whoever is excused and plays all the same is shown with their take.
	if store.Excused(b.excused, playerID, step.ID) {
		return BoardCell{State: Excused, Written: r.notes}
	}
	return BoardCell{State: Missing, Written: r.notes}
}

// cellOf is a player's latest take of a step; how many there were is said. The
// director's word stands in the measured one's place.
func cellOf(c store.Cell, step store.Step, teller say.Teller) BoardCell {
	cell := BoardCell{
		Written:   c.Written,
		TakeID:    c.TakeID,
		State:     CellState(view.StateOf(c.Failure, c.Result != "")),
		Result:    c.Result,
		Takes:     c.Takes,
		Comments:  c.Comments,
		Simulated: c.Simulated,
		Earlier:   c.StepVersion != step.Version,
	}
	if c.Overruled != "" {
		cell.Result, cell.Overruled = c.Overruled, true
	}
	if cell.State == Done {
		cell.Deciding, cell.Ribbon = view.Short(teller, c.Conclusion, c.Short), view.Kept[ribbon.Ribbon](c.Ribbon)
	}
	return cell
}

// reading is what a step asks of somebody, as they read it.
type reading struct {
	notes string
	asked bool // false: the step is not for the instrument
}

// reader works out what players read of an item. Most of a section reads the same,
// and is worked out once.
type reader struct {
	item  plan.Item
	day   time.Time
	known map[string]reading // by all that notes are worked out from
}

// of returns what a player reads of the item on the player's own rung.
func (r reader) of(s store.Standing) (reading, error) {
	p := s.Player
	rung := s.Ladders[r.item.Step.LadderKey()].Rung
	// Everything that notes depend on. What is left out here shows one player another's notes.
	key := fmt.Sprint(p.Instrument, p.Variant, p.Stage, rung, p.Knows)
	if found, known := r.known[key]; known {
		return found, nil
	}
	score, err := intake.Notes(r.item, s, r.day)
	if err != nil && !errors.Is(err, exercise.ErrNotFor) {
		return reading{}, err
	}
	found := reading{notes: score.Reads(), asked: err == nil}
	r.known[key] = found
	return found, nil
}

// rows is the board as the page draws it. Whoever has a take of any step of the day
// has played.
func (b board) rows() []SectionRows {
	out := []SectionRows{}
	for _, s := range b.sections {
		rows := SectionRows{Name: s.name, Players: []PlayerRow{}}
		for _, m := range s.members {
			p := m.standing.Player
			rows.Players = append(rows.Players, PlayerRow{
				ID:         p.ID,
				Name:       p.FullName(),
				Instrument: m.instrument.Name,
				Cells:      m.cells,
			})
			if slices.ContainsFunc(m.cells, func(c BoardCell) bool { return c.TakeID != "" }) {
				rows.Played++
			}
		}
		out = append(out, rows)
	}
	return out
}

// common says what the players' latest takes have in common.
func (b board) common(played []store.Cell, steps []BoardStep) []progress.Common {
	names := map[string]string{}
	for _, s := range steps {
		names[s.ID] = s.Name
	}
	plays := map[string]instrument.Instrument{}
	for _, s := range b.sections {
		for _, m := range s.members {
			plays[m.standing.Player.ID] = m.instrument
		}
	}
	var takes []progress.Take
	for _, c := range played {
		i, here := plays[c.PlayerID]
		// Takes of players who have left the class, or that are still being heard, speak for
		// nobody.
		if !here || c.Result == "" {
			continue
		}
		takes = append(takes, progress.Take{
			ID:         c.TakeID,
			Player:     c.PlayerID,
			Instrument: i.Name,
			Section:    i.Section,
			Step:       c.StepID,
			// The director's word counts here too: what was overruled to clean is no common fault.
			Result: cmp.Or(c.Overruled, c.Result),
			Cause:  c.Cause,
			Notes:  c.Written,
		})
	}
	return progress.Commons(takes, names)
}
