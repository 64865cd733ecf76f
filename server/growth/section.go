package growth

import (
	"context"
	"slices"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/progress"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// SectionView is a section's notes and rungs.
type SectionView struct {
	Class    view.ClassName     `json:"class"`
	Section  string             `json:"section"`
	Sections []string           `json:"sections" nullable:"false" doc:"of the class, to go on to"`
	Days     int                `json:"days" doc:"that are looked back on"`
	From     string             `json:"from" format:"date"`
	To       string             `json:"to" format:"date"`
	Maps     []InstrumentMap    `json:"maps" nullable:"false" doc:"one for each instrument of the section"`
	Ladders  []LadderStanding   `json:"ladders" nullable:"false"`
	Players  []view.NamedPlayer `json:"players" nullable:"false"`
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
	Rung    int                `json:"rung"`
	Text    string             `json:"text"`
	Players []view.NamedPlayer `json:"players" nullable:"false"`
}

// SectionOf returns how a class's section did over so many days up to today.
// Errors: store.ErrNotFound when nobody of the class is in the section.
func SectionOf(
	ctx context.Context,
	s *store.Store,
	class store.Class,
	section string,
	days int,
	today time.Time,
) (SectionView, error) {
	players, err := s.Players(ctx, class.ID)
	if err != nil {
		return SectionView{}, err
	}
	out := SectionView{
		Class:    view.ClassNameOf(class),
		Section:  section,
		Sections: []string{},
		Days:     days,
		From:     view.Date(today.AddDate(0, 0, 1-days)),
		To:       view.Date(today),
		Players:  []view.NamedPlayer{},
	}
	var mine []store.Player
	for _, i := range instrument.Band() {
		for _, p := range players {
			if p.Instrument != i.Key {
				continue
			}
			// Sections of the class to go on to, in score order, each once.
			if !slices.Contains(out.Sections, i.Section) {
				out.Sections = append(out.Sections, i.Section)
			}
			if i.Section == section {
				mine = append(mine, p)
				out.Players = append(out.Players, view.NamedPlayer{ID: p.ID, Name: p.FullName()})
			}
		}
	}
	// A section without players is a wrong address, not an empty page.
	if len(mine) == 0 {
		return SectionView{}, store.ErrNotFound
	}
	if out.Maps, err = mapsOf(ctx, s, class, mine, today.AddDate(0, 0, 1-days), today); err != nil {
		return SectionView{}, err
	}
	out.Ladders, err = laddersOf(ctx, s, class, mine)
	return out, err
}

// mapsOf makes a map of notes for each instrument of a section: clarinets and bass
// clarinets find other notes hard.
func mapsOf(
	ctx context.Context,
	s *store.Store,
	class store.Class,
	players []store.Player,
	from, today time.Time,
) ([]InstrumentMap, error) {
	byInstrument := map[string][]progress.Tally{}
	keys := []string{}
	for _, p := range players {
		if !slices.Contains(keys, p.Instrument) {
			keys = append(keys, p.Instrument)
		}
	}
	// Counted by the database: a section's year is a hundred thousand notes, its tallies a
	// hundred.
	rows, err := s.SectionTallies(ctx, class.ID, keys, from, today)
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
				// Both names: players read the one, the director hears the other.
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
func laddersOf(
	ctx context.Context,
	s *store.Store,
	class store.Class,
	players []store.Player,
) ([]LadderStanding, error) {
	states, err := s.LaddersOfClass(ctx, class)
	if err != nil {
		return nil, err
	}
	out := []LadderStanding{}
	for _, l := range exercise.Ladders() {
		standing := LadderStanding{Name: l.Name, Rungs: []string{}, On: []StandingRung{}}
		byRung := map[int][]view.NamedPlayer{}
		for _, p := range players {
			state, tried := states[p.ID][l.Key]
			i, err := instrument.Get(p.Instrument)
			// Whoever never tried a ladder does not stand on its first rung.
			if err != nil || !tried {
				continue
			}
			if len(standing.Rungs) == 0 {
				for _, r := range l.Rungs(i) {
					standing.Rungs = append(standing.Rungs, r.Text)
				}
			}
			byRung[state.Rung] = append(
				byRung[state.Rung],
				view.NamedPlayer{ID: p.ID, Name: p.FullName(), Stuck: ladder.Standard().Stuck(state)},
			)
		}
		// From the top, as a ladder is looked at.
		for rung := len(standing.Rungs); rung >= 1; rung-- {
			if who := byRung[rung]; len(who) > 0 {
				standing.On = append(standing.On, StandingRung{rung, standing.Rungs[rung-1], who})
			}
		}
		if len(standing.On) > 0 {
			out = append(out, standing)
		}
	}
	return out, nil
}
