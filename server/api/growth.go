package api

import (
	"context"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/practice"
	"earlychorus/core/progress"
	"earlychorus/server/store"
)

// GrowthView is how a player has grown.
type GrowthView struct {
	Class      ClassName      `json:"class"`
	Player     NamedPlayer    `json:"player"`
	Instrument string         `json:"instrument"`
	Section    string         `json:"section"`
	Today      string         `json:"today" format:"date" doc:"the school's date now"`
	Weeks      []GrowthWeek   `json:"weeks" nullable:"false"`
	Hold       progress.Line  `json:"hold"`
	Centre     progress.Line  `json:"centre"`
	Steadiness progress.Line  `json:"steadiness"`
	Days       []string       `json:"days" doc:"days played" nullable:"false"`
	Ladders    []LadderGrowth `json:"ladders" nullable:"false"`
	Comments   []CommentView  `json:"comments" nullable:"false"`
}

// LadderGrowth is a ladder and how the player came to stand where the player does.
type LadderGrowth struct {
	practice.Ladder
	History []ladder.Turn `json:"history" nullable:"false" doc:"every time the rung changed, oldest first"`
}

// GrowthWeek is a player's week.
type GrowthWeek struct {
	progress.Week
	Monday string `json:"monday" format:"date"`
}

type growthInput struct {
	ClassPath
	Player string `path:"player" format:"uuid"`
	Weeks  int    `                            query:"weeks" minimum:"1" maximum:"53" default:"12"`
}

type growthOutput struct{ Body GrowthView }

func (a *API) showGrowth(ctx context.Context, in *growthInput) (*growthOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	view, err := a.growthOf(ctx, class, in.Player, in.Weeks)
	if err != nil {
		return nil, err
	}
	return &growthOutput{view}, nil
}

const mostOwnComments = 50

func (a *API) growthOf(ctx context.Context, class store.Class, playerID string, weeks int) (GrowthView, error) {
	p, err := a.Store.Player(ctx, playerID)
	if err != nil {
		return GrowthView{}, err
	}
	if p.ClassID != class.ID {
		return GrowthView{}, store.ErrNotFound
	}
	p.Class = class
	today := class.Day(a.Now())
	who, err := p.As(today)
	if err != nil {
		return GrowthView{}, err
	}
	i := who.Instrument
	from := store.Monday(today).AddDate(0, 0, -7*(weeks-1))
	rows, err := a.Store.PlayerNotes(ctx, p.ID, from, today)
	if err != nil {
		return GrowthView{}, err
	}
	longest, err := a.Store.LongestTakes(ctx, p, from, today)
	if err != nil {
		return GrowthView{}, err
	}
	notes := make([]progress.Note, len(rows))
	for n, r := range rows {
		notes[n] = noteOf(r, longest[r.TakeID])
	}
	growth := progress.GrowthOf(notes)
	out := GrowthView{
		Class:      classNameOf(class),
		Player:     NamedPlayer{ID: p.ID, Name: p.FullName()},
		Instrument: i.Name,
		Section:    i.Section,
		Today:      today.Format(time.DateOnly),
		Weeks:      []GrowthWeek{},
		Hold:       growth.Hold,
		Centre:     growth.Centre,
		Steadiness: growth.Steadiness,
		Days:       []string{},
		Ladders:    []LadderGrowth{},
		Comments:   []CommentView{},
	}
	for _, w := range growth.Weeks {
		out.Weeks = append(out.Weeks, GrowthWeek{w, dayOf(w.From)})
	}
	days, err := a.Store.DaysPlayed(ctx, p.ID, from, today)
	if err != nil {
		return out, err
	}
	for _, d := range days {
		out.Days = append(out.Days, d.Format(time.DateOnly))
	}
	if out.Ladders, err = a.climbed(ctx, p, i, today); err != nil {
		return out, err
	}
	comments, err := a.Store.CommentsForPlayer(ctx, p.ID, from, mostOwnComments)
	for _, c := range comments {
		out.Comments = append(out.Comments, commentView(c))
	}
	return out, err
}

// climbed is where a player stands on each ladder that was tried, and the way there.
func (a *API) climbed(
	ctx context.Context,
	p store.Player,
	i instrument.Instrument,
	today time.Time,
) ([]LadderGrowth, error) {
	out := []LadderGrowth{}
	states, err := a.Store.LaddersOf(ctx, p)
	if err != nil {
		return nil, err
	}
	for _, l := range exercise.Ladders() {
		state, tried := states[l.Key]
		if !tried {
			continue
		}
		log, err := a.Store.LadderLog(ctx, p.ID, l.Key)
		if err != nil {
			return nil, err
		}
		view, _ := practice.LadderOf(l.Key, i, &state, state.Rung, today.Format(time.DateOnly))
		out = append(out, LadderGrowth{view, ladder.Standard().History(len(view.Rungs), log)})
	}
	return out, nil
}

func noteOf(r store.TakeNote, free bool) progress.Note {
	return progress.Note{
		Player:     r.PlayerID,
		Take:       r.TakeID,
		Day:        dayNumber(r.Day),
		Sounding:   music.MIDI(r.Sounding),
		Good:       r.Good,
		Trusted:    r.Trusted,
		Centre:     music.Cents(r.Centre),
		Steadiness: music.Cents(r.Steadiness),
		Held:       music.Seconds(r.Held),
		Free:       free,
	}
}

// dayNumber counts days from a Monday.
func dayNumber(day time.Time) int {
	return int(day.Sub(time.Date(2024, 1, 1, 0, 0, 0, 0, time.UTC)).Hours() / 24)
}

func dayOf(number int) string {
	return time.Date(2024, 1, 1, 0, 0, 0, 0, time.UTC).AddDate(0, 0, number).Format(time.DateOnly)
}

func schoolDays(after, to time.Time) int { return progress.SchoolDays(dayNumber(after), dayNumber(to)) }
