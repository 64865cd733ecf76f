package api

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
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// ClassName is a class as a list shows it.
type ClassName struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	School string `json:"school"`
	Code   string `json:"code"`
}

func classNameOf(c store.Class) ClassName { return ClassName{c.ID, c.Name, c.School.Name, c.Code} }

type classesOutput struct {
	Body struct {
		Classes []ClassName `json:"classes" nullable:"false"`
	}
}

func (a *API) listClasses(ctx context.Context, _ *struct{}) (*classesOutput, error) {
	classes, err := a.Store.ClassesFor(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	out := &classesOutput{}
	out.Body.Classes = []ClassName{}
	for _, c := range classes {
		out.Body.Classes = append(out.Body.Classes, classNameOf(c))
	}
	return out, nil
}

// Today is the board: a class's players by section, the day's steps across.
type Today struct {
	Class    ClassName         `json:"class"`
	Day      string            `json:"day" format:"date"`
	Today    string            `json:"today" format:"date" doc:"the school's date now"`
	Steps    []BoardStep       `json:"steps" nullable:"false"`
	Sections []SectionRows     `json:"sections" nullable:"false"`
	Common   []progress.Common `json:"common" doc:"what sections and the class have in common, with the takes behind it" nullable:"false"`
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

// BoardCell is a player's latest take of a step.
type BoardCell struct {
	Written   string              `json:"written" doc:"the notes the player reads"`
	TakeID    string              `json:"take_id,omitempty"`
	State     string              `json:"state" doc:"not-asked: the step is not for this instrument; excused: the player is asked for nothing of it today" enum:"missing,waiting,done,failed,not-asked,excused"`
	Result    verdict.Result      `json:"result,omitempty" enum:"clean,nearly,not-yet,cant-tell"`
	Overruled bool                `json:"overruled"`
	Deciding  string              `json:"deciding,omitempty" doc:"the deciding measure in words"`
	Ribbon    Kept[ribbon.Ribbon] `json:"ribbon,omitempty"`
	Takes     int                 `json:"takes"`
	Comments  int                 `json:"comments"`
	Earlier   bool                `json:"earlier" doc:"played before the step was last changed"`
}

type todayInput struct {
	Class string `path:"class" format:"uuid"`
	Day   string `             format:"date" query:"day" doc:"the school's today when left out"`
}

type todayOutput struct{ Body Today }

func (a *API) showToday(ctx context.Context, in *todayInput) (*todayOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	today := class.Day(a.Now())
	day := today
	if in.Day != "" {
		if day, err = time.Parse(time.DateOnly, in.Day); err != nil {
			return nil, problem.Input("day", "write the day as 2026-11-24")
		}
	}
	steps, err := a.Store.StepsOn(ctx, class.ID, day, plan.AtHome)
	if err != nil {
		return nil, err
	}
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	excused, err := a.Store.ExceptionsOn(ctx, class.ID, day)
	if err != nil {
		return nil, err
	}
	b := board{
		class:    class,
		day:      day,
		excused:  excused,
		sections: sectionsOf(players, len(steps)),
	}
	out := Today{
		Class: classNameOf(class),
		Day:   day.Format(time.DateOnly),
		Today: today.Format(time.DateOnly),
		Steps: []BoardStep{},
	}
	ids := make([]string, len(steps))
	for n, step := range steps {
		ids[n] = step.ID
	}
	played, err := a.Store.Board(ctx, ids, day)
	if err != nil {
		return nil, err
	}
	allTicks, err := a.Store.TicksOfSteps(ctx, ids, day)
	if err != nil {
		return nil, err
	}
	cellsOf, ticksOf := map[string][]store.Cell{}, map[string][]store.Tick{}
	for _, c := range played {
		cellsOf[c.StepID] = append(cellsOf[c.StepID], c)
	}
	for _, t := range allTicks {
		ticksOf[t.StepID] = append(ticksOf[t.StepID], t)
	}
	for n, step := range steps {
		head, err := b.fill(n, step, cellsOf[step.ID], ticksOf[step.ID])
		if err != nil {
			return nil, err
		}
		out.Steps = append(out.Steps, head)
	}
	out.Sections = b.rows()
	out.Common = b.common(played, out.Steps)
	return &todayOutput{out}, nil
}

// common says what the players' latest takes have in common.
func (b board) common(played []store.Cell, steps []BoardStep) []progress.Common {
	names := map[string]string{}
	for _, s := range steps {
		names[s.ID] = s.Name
	}
	sits := map[string]instrument.Instrument{}
	for _, s := range b.sections {
		for _, m := range s.members {
			sits[m.player.ID] = m.instrument
		}
	}
	var takes []progress.Take
	for _, c := range played {
		i, here := sits[c.PlayerID]
		if !here || c.Result == "" {
			continue
		}
		takes = append(takes, progress.Take{
			ID:         c.TakeID,
			Player:     c.PlayerID,
			Instrument: i.Name,
			Section:    i.Section,
			Step:       c.StepID,
			Result:     cmp.Or(c.Overruled, c.Result),
			Cause:      c.Cause,
			Notes:      c.Written,
		})
	}
	return progress.Commons(takes, names)
}

// board is Today being put together.
type board struct {
	class    store.Class
	day      time.Time
	excused  []store.Exception
	sections []section
}

type section struct {
	name    string
	members []member
}

type member struct {
	player     store.Player
	instrument instrument.Instrument
	cells      []BoardCell // by step
}

// sectionsOf groups players by section, in score order.
func sectionsOf(players []store.Player, steps int) (out []section) {
	for _, i := range instrument.All() {
		for _, p := range players {
			if p.Instrument != i.Key {
				continue
			}
			if len(out) == 0 || out[len(out)-1].name != i.Section {
				out = append(out, section{name: i.Section})
			}
			last := &out[len(out)-1]
			last.members = append(last.members, member{p, i, make([]BoardCell, steps)})
		}
	}
	return out
}

// notAsked stands for notes that a player is not asked for.
const notAsked = "not asked"

// fill writes one step's column and returns its head.
func (b board) fill(column int, step store.Step, cells []store.Cell, ticks []store.Tick) (BoardStep, error) {
	item, err := step.Item()
	if err != nil {
		return BoardStep{}, err
	}
	head := BoardStep{
		ID:       step.ID,
		Version:  step.Version,
		Name:     item.Step.Kind.Name,
		Sentence: item.Step.Sentence(),
		Results:  map[string]int{},
	}
	ticked := map[string]store.Tick{}
	for _, t := range ticks {
		ticked[t.PlayerID] = t
	}
	byPlayer := map[string]store.Cell{}
	for _, c := range cells {
		byPlayer[c.PlayerID] = c
	}
	written := map[string]string{} // by what scores are worked out from: most of a section reads the same
	for _, s := range b.sections {
		for _, m := range s.members {
			p := m.player
			p.Class = b.class
			key := fmt.Sprint(p.Instrument, p.Variant, p.Stage)
			notes, known := written[key]
			if !known {
				score, err := intake.Notes(item, p, b.day)
				switch {
				case errors.Is(err, exercise.ErrNotFor):
					notes = notAsked
				case err != nil:
					return BoardStep{}, err
				default:
					notes = score.Reads()
				}
				written[key] = notes
			}
			if notes == notAsked {
				m.cells[column] = BoardCell{State: "not-asked"}
				continue
			}
			cell := BoardCell{State: "missing", Written: notes}
			if c, played := byPlayer[p.ID]; played {
				cell = boardCell(c, step)
			}
			if t, ok := ticked[p.ID]; ok {
				cell = BoardCell{
					State:    "done",
					Result:   t.Result,
					Deciding: t.Short,
					Takes:    1,
					Earlier:  t.StepVersion != step.Version,
				}
			}
			if cell.State == "missing" && store.Excused(b.excused, p.ID, step.ID) {
				cell.State = "excused"
			}
			m.cells[column] = cell
			if cell.State == "done" {
				head.Results[string(cell.Result)]++
			} else {
				head.Results[cell.State]++
			}
		}
	}
	return head, nil
}

func boardCell(c store.Cell, step store.Step) BoardCell {
	cell := BoardCell{
		Written:  c.Written,
		TakeID:   c.TakeID,
		State:    state(c.Failure, c.Result != ""),
		Result:   c.Result,
		Takes:    c.Takes,
		Comments: c.Comments,
		Earlier:  c.StepVersion != step.Version,
	}
	if c.Overruled != "" {
		cell.Result, cell.Overruled = c.Overruled, true
	}
	if cell.State == "done" {
		cell.Deciding, cell.Ribbon = c.Short, Kept[ribbon.Ribbon](c.Ribbon)
	}
	return cell
}

// state tells how far a take has come.
func state(failure string, analysed bool) string {
	switch {
	case analysed:
		return "done"
	case failure != "":
		return "failed"
	}
	return "waiting"
}

func (b board) rows() []SectionRows {
	out := []SectionRows{}
	for _, s := range b.sections {
		rows := SectionRows{Name: s.name, Players: []PlayerRow{}}
		for _, m := range s.members {
			rows.Players = append(rows.Players, PlayerRow{
				ID:         m.player.ID,
				Name:       m.player.FullName(),
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
