package api

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/practice"
	"earlychorus/core/progress"
	"earlychorus/server/spreadsheet"
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
	Days    int    `query:"days" minimum:"1" maximum:"370" default:"14"`
}

type sectionOutput struct{ Body SectionView }

func (a *API) showSection(ctx context.Context, in *sectionInput) (*sectionOutput, error) {
	class, err := a.Store.ClassOfDirector(ctx, in.Class, a.who(ctx).DirectorID)
	if err != nil {
		return nil, problem(err)
	}
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, problem(err)
	}
	out := SectionView{
		Class: ClassName{class.ID, class.Name, class.School.Name, class.Code}, Section: in.Section, Sections: []string{}, Days: in.Days,
		Maps: []InstrumentMap{}, Ladders: []LadderStanding{}, Players: []NamedPlayer{},
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
		return nil, problem(store.ErrNotFound)
	}
	if out.Maps, err = a.mapsOf(ctx, class, mine, in.Days); err != nil {
		return nil, problem(err)
	}
	if out.Ladders, err = a.laddersOf(ctx, class, mine); err != nil {
		return nil, problem(err)
	}
	return &sectionOutput{out}, nil
}

func (a *API) mapsOf(ctx context.Context, class store.Class, players []store.Player, days int) ([]InstrumentMap, error) {
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
			Player: r.PlayerID, Sounding: music.MIDI(r.Sounding), Takes: r.Takes, Good: r.Good, Centres: r.Centres, Steadiness: r.Steadiness,
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
				MapNote: n, Written: c.Naming.WithOctave(exercise.WrittenKey(i).Spell(i.Written(n.Sounding))),
				Concert: c.Naming.WithOctave(exercise.SoundingKey(i).Spell(n.Sounding)), Hard: c.IsHard(i, n.Sounding),
			})
		}
		out = append(out, m)
	}
	return out, nil
}

func noteOf(r store.TakeNote, free bool) progress.Note {
	return progress.Note{
		Player: r.PlayerID, Take: r.TakeID, Day: dayNumber(r.Day), Sounding: music.MIDI(r.Sounding), Good: r.Good, Trusted: r.Trusted,
		Centre: music.Cents(r.Centre), Steadiness: music.Cents(r.Steadiness), Held: music.Seconds(r.Held), Free: free,
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
			byRung[state.Rung] = append(byRung[state.Rung], NamedPlayer{p.ID, p.FullName(), ladder.Standard().Stuck(state)})
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
	Days       []string       `json:"days" nullable:"false" doc:"days played"`
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
	Weeks  int    `query:"weeks" minimum:"1" maximum:"53" default:"12"`
}

type growthOutput struct{ Body GrowthView }

func (a *API) showGrowth(ctx context.Context, in *growthInput) (*growthOutput, error) {
	class, err := a.Store.ClassOfDirector(ctx, in.Class, a.who(ctx).DirectorID)
	if err != nil {
		return nil, problem(err)
	}
	view, err := a.growthOf(ctx, class, in.Player, in.Weeks)
	if err != nil {
		return nil, problem(err)
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
		notes[n] = noteOf(r, slices.Contains(longest, r.TakeID))
	}
	growth := progress.GrowthOf(notes)
	out := GrowthView{
		Class: ClassName{class.ID, class.Name, class.School.Name, class.Code}, Player: NamedPlayer{ID: p.ID, Name: p.FullName()}, Instrument: i.Name, Section: i.Section, Today: today.Format(time.DateOnly),
		Weeks: []GrowthWeek{}, Hold: growth.Hold, Centre: growth.Centre, Steadiness: growth.Steadiness, Days: []string{}, Ladders: []LadderGrowth{}, Comments: []CommentView{},
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
func (a *API) climbed(ctx context.Context, p store.Player, i instrument.Instrument, today time.Time) ([]LadderGrowth, error) {
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

// takeOutProgress answers everything measured in a class as CSV or JSON, a line a
// note; docs/formats.md says what the columns are.
func (a *API) takeOutProgress(w http.ResponseWriter, r *http.Request) {
	class, err := a.classAsked(r)
	if err != nil {
		fail(w, err)
		return
	}
	if chi.URLParam(r, "format") == "json" {
		a.progressJSON(w, r, class)
		return
	}
	attach(w, "text/csv; charset=utf-8", "progress.csv")
	out := spreadsheet.NewWriter(w)
	_ = out.Write([]string{"day", "player_id", "first_name", "last_name", "instrument", "kind", "step_id", "take_id", "result", "word", "note", "sounding_midi", "good", "trusted", "centre_cents", "steadiness_cents", "held_s"})
	err = a.Store.EachProgress(r.Context(), class.ID, func(p store.Progress) error {
		return out.Write([]string{
			p.Day.Format(time.DateOnly), p.PlayerID, p.FirstName, p.LastName, p.Instrument, p.Kind, p.StepID, p.TakeID, p.Result, p.Word, strconv.Itoa(p.Number), strconv.Itoa(p.Sounding),
			strconv.FormatBool(p.Good), strconv.FormatBool(p.Trusted), fmt.Sprintf("%.1f", p.Centre), fmt.Sprintf("%.1f", p.Steadiness), fmt.Sprintf("%.2f", p.Held),
		})
	})
	out.Flush()
	if err != nil {
		panic(http.ErrAbortHandler) // part of it is on its way: a cut-off file must not look whole
	}
}

func (a *API) progressJSON(w http.ResponseWriter, r *http.Request, class store.Class) {
	attach(w, "application/x-ndjson", "progress.ndjson")
	out := json.NewEncoder(w)
	if err := a.Store.EachProgress(r.Context(), class.ID, func(p store.Progress) error { return out.Encode(p) }); err != nil {
		panic(http.ErrAbortHandler)
	}
}
