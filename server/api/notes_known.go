package api

import (
	"context"
	"maps"
	"slices"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/known"
	"earlychorus/core/music"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// KnownNotes is which notes a class knows, on each of its instruments, as of a week.
type KnownNotes struct {
	ByStage     bool              `json:"by_stage" doc:"every note that a stage reaches counts as known"`
	Instruments []InstrumentKnows `json:"instruments" nullable:"false" doc:"those that somebody plays, in score order"`
}

// InstrumentKnows is which notes one instrument of a class knows.
type InstrumentKnows struct {
	Instrument string      `json:"instrument"`
	Section    string      `json:"section"`
	Notes      []KnownNote `json:"notes" nullable:"false" doc:"of the whole beginner range, from the lowest"`
	Next       music.MIDI  `json:"next_midi" doc:"the note that usually comes next"`
}

// KnownNote is a note of a range, and how it stands.
type KnownNote struct {
	Sounding music.MIDI  `json:"midi"`
	Written  string      `json:"written" doc:"as the section reads it"`
	Concert  string      `json:"concert"`
	Week     string      `json:"week,omitempty" format:"date" doc:"the Monday of the week it was given in"`
	State    known.State `json:"state,omitempty" enum:"known,new,later" doc:"absent: not given yet"`
	Hard     bool        `json:"hard,omitempty" doc:"counted as tried at first"`
}

// knownOutput is which notes a class knows.
type knownOutput struct{ Body KnownNotes }

// showKnown answers which notes a class knows in a week.
func (a *API) showKnown(ctx context.Context, in *WeekPath) (*knownOutput, error) {
	class, monday, err := a.week(ctx, *in)
	if err != nil {
		return nil, err
	}
	return a.knownOf(ctx, class, a.planned(class, monday))
}

// knownInput is what a class knows: notes left out of an instrument are not known any more, an
// instrument left out is as it was.
type knownInput struct {
	WeekPath
	Body known.Book
}

// saveKnown keeps which notes a class knows. Takes already heard keep their word.
func (a *API) saveKnown(ctx context.Context, in *knownInput) (*knownOutput, error) {
	class, monday, err := a.week(ctx, in.WeekPath)
	if err != nil {
		return nil, err
	}
	if err := in.Body.Check(); err != nil {
		return nil, err
	}
	for key, notes := range in.Body.Notes {
		for _, note := range notes {
			if day, err := time.Parse(time.DateOnly, note.Week); err == nil && day.Weekday() != time.Monday {
				return nil, problem.Input("notes."+key, "name the week by its Monday, as 2026-11-30")
			}
		}
	}
	// Instruments that nobody plays just now are not in the form, and keep their notes.
	kept := maps.Clone(class.Known.Notes)
	if kept == nil {
		kept = map[string][]known.Note{}
	}
	maps.Copy(kept, in.Body.Notes)
	class.Known = known.Book{ByStage: in.Body.ByStage, Notes: kept}
	if err := a.Store.SaveKnown(ctx, class); err != nil {
		return nil, err
	}
	return a.knownOf(ctx, class, a.planned(class, monday))
}

// knownOf lists the notes of every instrument that somebody plays.
func (a *API) knownOf(ctx context.Context, class store.Class, day time.Time) (*knownOutput, error) {
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	out := KnownNotes{ByStage: class.Known.ByStage, Instruments: []InstrumentKnows{}}
	for _, i := range instrument.All() {
		plays := func(p store.Player) bool { return p.Instrument == i.Key }
		if !slices.ContainsFunc(players, plays) {
			continue
		}
		knows, fresh := class.NotesOn(i, known.Own{}, day)
		out.Instruments = append(out.Instruments, InstrumentKnows{
			Instrument: i.Key,
			Section:    i.Section,
			Notes:      standingOf(i, class, day),
			Next:       exercise.NextNotes(i, slices.Concat(knows, fresh))[0],
		})
	}
	return &knownOutput{out}, nil
}

// standingOf lists an instrument's range and how each note stands in a class.
func standingOf(i instrument.Instrument, class store.Class, day time.Time) []KnownNote {
	c := class.Conventions()
	list := class.Known.Of(i)
	var out []KnownNote
	for m := i.Beginner.From; m <= i.Beginner.To; m++ {
		n := KnownNote{
			Sounding: m,
			Written:  c.Naming.WithOctave(exercise.WrittenKey(i).Spell(i.Written(m))),
			Concert:  c.Naming.WithOctave(exercise.SoundingKey(i).Spell(m)),
			Hard:     c.IsHard(i, m),
		}
		if at := slices.IndexFunc(list, func(k known.Note) bool { return k.Sounding == m }); at >= 0 {
			n.Week, n.State = list[at].Week, list[at].In(store.Monday(day).Format(time.DateOnly))
		}
		out = append(out, n)
	}
	return out
}

// PlayerKnows is which notes one player knows beside the class.
type PlayerKnows struct {
	ByStage bool        `json:"by_stage" doc:"the class keeps no notes: every note that a stage reaches counts"`
	Notes   []KnownNote `json:"notes" nullable:"false" doc:"of the instrument's range, as the class knows them; none without notes"`
	Own     known.Own   `json:"own"`
}

// playerKnowsOutput is which notes one player knows.
type playerKnowsOutput struct{ Body PlayerKnows }

// showPlayerKnows answers which notes a player knows, and how that differs from the class.
func (a *API) showPlayerKnows(ctx context.Context, in *PlayerPath) (*playerKnowsOutput, error) {
	p, err := a.playerAsked(ctx, in)
	if err != nil {
		return nil, err
	}
	out := PlayerKnows{ByStage: p.Class.Known.ByStage, Notes: []KnownNote{}, Own: p.Knows}
	if i, err := p.Plays(); err == nil && i.IsPitched() {
		out.Notes = standingOf(i, p.Class, p.Class.Day(a.Now()))
	}
	return &playerKnowsOutput{out}, nil
}

// playerKnowsInput is how a player differs from the class; empty: not at all.
type playerKnowsInput struct {
	PlayerPath
	Body known.Own
}

// savePlayerKnows keeps which notes a player knows before the class, or not yet.
func (a *API) savePlayerKnows(ctx context.Context, in *playerKnowsInput) (*playerKnowsOutput, error) {
	p, err := a.playerAsked(ctx, &in.PlayerPath)
	if err != nil {
		return nil, err
	}
	i, err := p.Plays()
	if err != nil || !i.IsPitched() {
		return nil, problem.Input("player", "choose an instrument that plays notes first")
	}
	if err := in.Body.Check(i); err != nil {
		return nil, err
	}
	p.Knows = in.Body
	if err := a.Store.SaveKnows(ctx, p); err != nil {
		return nil, err
	}
	return a.showPlayerKnows(ctx, &in.PlayerPath)
}
