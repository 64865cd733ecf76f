// Package growth is how a player has grown, and how a section plays its notes and
// stands on its ladders.
package growth

import (
	"context"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/practice"
	"earlychorus/core/progress"
	"earlychorus/core/say"
	"earlychorus/server/schooldays"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// GrowthView is how a player has grown.
type GrowthView struct {
	Class      view.ClassName     `json:"class"`
	Player     view.NamedPlayer   `json:"player"`
	Instrument string             `json:"instrument"`
	Section    string             `json:"section"`
	Today      string             `json:"today" format:"date" doc:"the school's date now"`
	Weeks      []GrowthWeek       `json:"weeks" nullable:"false"`
	Hold       progress.Line      `json:"hold"`
	Centre     progress.Line      `json:"centre"`
	Steadiness progress.Line      `json:"steadiness"`
	Tone       say.ToneCourse     `json:"tone"`
	Notes      []GrowthNote       `json:"notes" doc:"that were played, from low to high" nullable:"false"`
	Days       []string           `json:"days" doc:"days played" nullable:"false"`
	Ladders    []LadderGrowth     `json:"ladders" nullable:"false"`
	Comments   []view.CommentView `json:"comments" nullable:"false"`
}

// GrowthNote is a note as it comes out lately, by the name its player says.
type GrowthNote struct {
	progress.OwnNote
	Called string `json:"called"`
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

// mostOwnComments bounds what was said to one player: a year of a word a week.
const mostOwnComments = 50

// Of returns how a player of a class has grown over so many weeks up to today.
func Of(
	ctx context.Context,
	s *store.Store,
	class store.Class,
	playerID string,
	weeks int,
	today time.Time,
) (GrowthView, error) {
	p, err := s.Player(ctx, playerID)
	if err != nil {
		return GrowthView{}, err
	}
	// A player of another class does not exist here, whoever asks.
	if p.ClassID != class.ID {
		return GrowthView{}, store.ErrNotFound
	}
	p.Class = class
	i, err := p.Plays()
	if err != nil {
		return GrowthView{}, err
	}
	// Whole weeks: a first week of three days would look like a bad week.
	from := store.Monday(today).AddDate(0, 0, -7*(weeks-1))
	rows, err := s.PlayerNotes(ctx, p.ID, from, today)
	if err != nil {
		return GrowthView{}, err
	}
	// Takes that were held as long as they would last say something of breath, and nothing of
	// counting.
	longest, err := s.LongestTakes(ctx, p, from, today)
	if err != nil {
		return GrowthView{}, err
	}
	notes := make([]progress.Note, len(rows))
	for n, r := range rows {
		// What growth means is the core's; here rows become its words.
		notes[n] = noteOf(r, longest[r.TakeID])
	}
	growth := progress.GrowthOf(notes)
	out := GrowthView{
		Class:      view.ClassNameOf(class),
		Player:     view.NamedPlayer{ID: p.ID, Name: p.FullName()},
		Instrument: i.Name,
		Section:    i.Section,
		Today:      today.Format(time.DateOnly),
		Weeks:      []GrowthWeek{},
		Hold:       growth.Hold,
		Centre:     growth.Centre,
		Steadiness: growth.Steadiness,
		Notes:      ownNotes(rows, i, class.Conventions().Naming),
		Ladders:    []LadderGrowth{},
		Comments:   []view.CommentView{},
	}
	for _, w := range growth.Weeks {
		out.Weeks = append(out.Weeks, GrowthWeek{w, schooldays.Date(w.From)})
	}
	if out.Tone, err = courseOf(ctx, s, p.ID, from, today); err != nil {
		return out, err
	}
	if out.Days, err = played(ctx, s, p.ID, from, today); err != nil {
		return out, err
	}
	if out.Ladders, err = climbed(ctx, s, p, i, today); err != nil {
		return out, err
	}
	comments, err := s.CommentsForPlayer(ctx, p.ID, from, mostOwnComments)
	out.Comments = view.CommentsOf(comments)
	return out, err
}

// ownNotes is how each note that was played comes out, named beside the others.
func ownNotes(rows []store.TakeNote, i instrument.Instrument, naming music.Naming) []GrowthNote {
	played := make([]progress.Played, len(rows))
	for n, r := range rows {
		played[n] = progress.Played{Sounding: music.MIDI(r.Sounding), Good: r.Good}
	}
	own := progress.OwnNotes(played)
	key := exercise.WrittenKey(i)
	page := make([]music.Spelling, len(own))
	for n, o := range own {
		page[n] = key.Spell(i.Written(o.Sounding))
	}
	calls := naming.Calls(page)
	out := []GrowthNote{}
	for n, o := range own {
		out = append(out, GrowthNote{o, calls[page[n]]})
	}
	return out
}

// played is the dates between two on which a player played.
func played(ctx context.Context, s *store.Store, playerID string, from, to time.Time) ([]string, error) {
	days, err := s.DaysPlayed(ctx, playerID, from, to)
	out := []string{}
	for _, d := range days {
		out = append(out, d.Format(time.DateOnly))
	}
	return out, err
}

// climbed is where a player stands on each ladder that was tried, and the way there.
func climbed(
	ctx context.Context,
	s *store.Store,
	p store.Player,
	i instrument.Instrument,
	today time.Time,
) ([]LadderGrowth, error) {
	out := []LadderGrowth{}
	states, err := s.LaddersOf(ctx, p)
	if err != nil {
		return nil, err
	}
	for _, l := range exercise.Ladders() {
		state, tried := states[l.Key]
		if !tried {
			continue
		}
		// The log and not the standing: how one came to a rung is worked out from every try.
		log, err := s.LadderLog(ctx, p.ID, l.Key)
		if err != nil {
			return nil, err
		}
		view, _ := practice.LadderOf(l.Key, i, &state, state.Rung, today.Format(time.DateOnly))
		out = append(out, LadderGrowth{view, ladder.Standard().History(len(view.Rungs), log)})
	}
	return out, nil
}

// noteOf puts a row into the core's words. free says that nobody counted, so that
// timing means nothing.
func noteOf(r store.TakeNote, free bool) progress.Note {
	return progress.Note{
		Player:     r.PlayerID,
		Take:       r.TakeID,
		Day:        schooldays.Number(r.Day),
		Sounding:   music.MIDI(r.Sounding),
		Good:       r.Good,
		Trusted:    r.Trusted,
		Centre:     music.Cents(r.Centre),
		Steadiness: music.Cents(r.Steadiness),
		Held:       music.Seconds(r.Held),
		Free:       free,
	}
}
