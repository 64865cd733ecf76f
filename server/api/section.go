package api

import (
	"context"
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/progress"
	"earlychorus/server/store"
)

// SectionView is a section's notes and rungs.
type SectionView struct {
	Class    ClassName        `json:"class"`
	Section  string           `json:"section"`
	Sections []string         `json:"sections" nullable:"false" doc:"of the class, to go on to"`
	Days     int              `json:"days" doc:"that are looked back on"`
	Maps     []InstrumentMap  `json:"maps" nullable:"false" doc:"one for each instrument of the section"`
	Ladders  []LadderStanding `json:"ladders" nullable:"false"`
	Players  []NamedPlayer    `json:"players" nullable:"false"`
}

// InstrumentMap is an instrument's notes in order.
type InstrumentMap struct {
	Instrument string    `json:"instrument"`
	Notes      []MapNote `json:"notes" nullable:"false"`
}

// MapNote is a note of the map as its players read it.
type MapNote struct {
	progress.MapNote
	Written string `json:"written"`
	Concert string `json:"concert"`
	Hard    bool   `json:"hard"`
}

// LadderStanding is who stands where on a ladder, by first names: this page is
// the director's.
type LadderStanding struct {
	Name  string         `json:"name"`
	Rungs []string       `json:"rungs" nullable:"false"`
	On    []StandingRung `json:"on" nullable:"false" doc:"from the top; only rungs on which somebody stands"`
}

// StandingRung is a rung and who stands on it.
type StandingRung struct {
	Rung    int           `json:"rung"`
	Text    string        `json:"text"`
	Players []NamedPlayer `json:"players" nullable:"false"`
}

// NamedPlayer is a player with the way to the own page.
type NamedPlayer struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Stuck bool   `json:"stuck"`
}

type sectionInput struct {
	ClassPath
	Section string `path:"section"`
	Days    int    `               query:"days" minimum:"1" maximum:"370" default:"14"`
}

type sectionOutput struct{ Body SectionView }

func (a *API) showSection(ctx context.Context, in *sectionInput) (*sectionOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	out := SectionView{
		Class:    classNameOf(class),
		Section:  in.Section,
		Sections: []string{},
		Days:     in.Days,
		Maps:     []InstrumentMap{},
		Ladders:  []LadderStanding{},
		Players:  []NamedPlayer{},
	}
	var mine []store.Player
	for _, i := range instrument.All() {
		for _, p := range players {
			if p.Instrument != i.Key {
				continue
			}
			if !slices.Contains(out.Sections, i.Section) {
				out.Sections = append(out.Sections, i.Section)
			}
			if i.Section == in.Section {
				p.Class = class
				mine = append(mine, p)
				out.Players = append(out.Players, NamedPlayer{ID: p.ID, Name: p.FullName()})
			}
		}
	}
	if len(mine) == 0 {
		return nil, store.ErrNotFound
	}
	if out.Maps, err = a.mapsOf(ctx, class, mine, in.Days); err != nil {
		return nil, err
	}
	if out.Ladders, err = a.laddersOf(ctx, class, mine); err != nil {
		return nil, err
	}
	return &sectionOutput{out}, nil
}

func (a *API) mapsOf(
	ctx context.Context,
	class store.Class,
	players []store.Player,
	days int,
) ([]InstrumentMap, error) {
	today := class.Day(a.Now())
	byInstrument := map[string][]progress.Tally{}
	keys := []string{}
	for _, p := range players {
		if !slices.Contains(keys, p.Instrument) {
			keys = append(keys, p.Instrument)
		}
	}
	rows, err := a.Store.SectionTallies(ctx, class.ID, keys, today.AddDate(0, 0, 1-days), today)
	if err != nil {
		return nil, err
	}
	plays := map[string]string{}
	for _, p := range players {
		plays[p.ID] = p.Instrument
	}
	for _, r := range rows {
		key := plays[r.PlayerID]
		byInstrument[key] = append(byInstrument[key], progress.Tally{
			Player:     r.PlayerID,
			Sounding:   music.MIDI(r.Sounding),
			Takes:      r.Takes,
			Good:       r.Good,
			Centres:    r.Centres,
			Steadiness: r.Steadiness,
		})
	}
	out := []InstrumentMap{}
	c := class.Conventions()
	for _, key := range keys {
		i, err := instrument.Get(key)
		if err != nil {
			return nil, err
		}
		m := InstrumentMap{Instrument: i.Name, Notes: []MapNote{}}
		for _, n := range progress.NoteMap(byInstrument[key]) {
			m.Notes = append(m.Notes, MapNote{
				MapNote: n,
				Written: c.Naming.WithOctave(exercise.WrittenKey(i).Spell(i.Written(n.Sounding))),
				Concert: c.Naming.WithOctave(exercise.SoundingKey(i).Spell(n.Sounding)),
				Hard:    c.IsHard(i, n.Sounding),
			})
		}
		out = append(out, m)
	}
	return out, nil
}

// laddersOf is who stands where.
func (a *API) laddersOf(ctx context.Context, class store.Class, players []store.Player) ([]LadderStanding, error) {
	states, err := a.Store.LaddersOfClass(ctx, class)
	if err != nil {
		return nil, err
	}
	out := []LadderStanding{}
	for _, l := range exercise.Ladders() {
		s := LadderStanding{Name: l.Name, Rungs: []string{}, On: []StandingRung{}}
		byRung := map[int][]NamedPlayer{}
		for _, p := range players {
			state, tried := states[p.ID][l.Key]
			i, err := instrument.Get(p.Instrument)
			if err != nil || !tried {
				continue
			}
			if len(s.Rungs) == 0 {
				for _, r := range l.Rungs(i) {
					s.Rungs = append(s.Rungs, r.Text)
				}
			}
			byRung[state.Rung] = append(
				byRung[state.Rung],
				NamedPlayer{p.ID, p.FullName(), ladder.Standard().Stuck(state)},
			)
		}
		for rung := len(s.Rungs); rung >= 1; rung-- {
			if who := byRung[rung]; len(who) > 0 {
				s.On = append(s.On, StandingRung{rung, s.Rungs[rung-1], who})
			}
		}
		if len(s.On) > 0 {
			out = append(out, s)
		}
	}
	return out, nil
}
