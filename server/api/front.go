package api

import (
	"context"
	"slices"

	"earlychorus/core/music"
	"earlychorus/core/notation"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// FrontView is a day as the front of the room shows it.
type FrontView struct {
	Class view.ClassName `json:"class"`
	Day   string         `json:"day" doc:"of the week"`
	Steps []FrontStep    `json:"steps" nullable:"false"`
	A4    music.Hertz    `json:"a4_hz"`
}

// FrontStep is a step that everybody plays at once.
type FrontStep struct {
	Key      string       `json:"key"`
	Name     string       `json:"name"`
	Sentence string       `json:"sentence"`
	Times    int          `json:"times"`
	Tempo    music.Tempo  `json:"tempo_bpm"`
	Beats    music.Beats  `json:"beats"`
	Ticked   bool         `json:"ticked"`
	Items    []string     `json:"items" nullable:"false" doc:"what everybody ticks"`
	Resting  []string     `json:"resting" nullable:"false" doc:"sections that have nothing to do in it"`
	Cautions []string     `json:"cautions" nullable:"false"`
	Cues     []FrontCue   `json:"cues" nullable:"false" doc:"what the room does, beat by beat"`
	Groups   []FrontGroup `json:"groups" nullable:"false" doc:"what each group of instruments reads"`
	Drone    music.Hertz  `json:"drone_hz" doc:"home, to sound under it"`
}

// FrontCue is a stretch of beats in which the room does one thing.
type FrontCue struct {
	From   music.Beats  `json:"from"`
	Beats  music.Beats  `json:"beats"`
	Phase  scores.Phase `json:"phase"`
	Active bool         `json:"active" doc:"the players sound or blow in it"`
	Text   string       `json:"text"`
}

// FrontGroup is the instruments that read the same notes.
type FrontGroup struct {
	Names []string    `json:"names" nullable:"false"`
	Doing string      `json:"doing" doc:"what they do meanwhile, when it is something else"`
	Notes []FrontNote `json:"notes" nullable:"false" doc:"when they sound, and what they read"`
	Items []string    `json:"items" nullable:"false" doc:"what this group ticks beside everybody"`
}

// FrontNote is a note that a group reads.
type FrontNote struct {
	From  music.Beats  `json:"from"`
	Beats music.Beats  `json:"beats"`
	Name  string       `json:"name"`
	Goal  string       `json:"goal,omitempty" doc:"where a slide ends"`
	Phase scores.Phase `json:"phase"`
}

// frontInput is a day of a week, 0 for Monday.
type frontInput struct {
	WeekPath
	Day int `path:"day" minimum:"0" maximum:"6"`
}

// frontOutput is the day as the room plays it, in beats, with nothing left to work
// out at the front.
type frontOutput struct{ Body FrontView }

// showFront lays a day out for the front of the room. The step's own score leads;
// who does not play it follows to the same beats.
func (a *API) showFront(ctx context.Context, in *frontInput) (*frontOutput, error) {
	class, monday, err := a.week(ctx, in.WeekPath)
	if err != nil {
		return nil, err
	}
	_, items, err := a.Store.PlanOf(ctx, class.ID, monday)
	if err != nil {
		return nil, err
	}
	members, band, err := a.bandOf(ctx, class, monday.AddDate(0, 0, in.Day))
	if err != nil {
		return nil, err
	}
	out := FrontView{
		Class: view.ClassNameOf(class),
		Day:   monday.AddDate(0, 0, in.Day).Weekday().String(),
		Steps: []FrontStep{},
		A4:    band.Conventions.A4,
	}
	week := plan.Plan{Name: titleOf(class, store.Plan{}), Items: items}
	for _, i := range week.OfDay(plan.Day(in.Day), plan.InClass) {
		step, ok, err := frontStep(i, members, band)
		if err != nil {
			return nil, err
		}
		if ok {
			out.Steps = append(out.Steps, step)
		}
	}
	return &frontOutput{out}, nil
}

// frontStep is a step as the whole room plays it together; ok is false for what
// nobody of the band can play.
func frontStep(i plan.Item, members []BandMember, band plan.Band) (out FrontStep, ok bool, err error) {
	out = FrontStep{
		Key:      i.Key,
		Name:     i.Name(),
		Sentence: i.Step.Sentence(),
		Times:    i.Times,
		Cautions: []string{},
		Cues:     []FrontCue{},
		Groups:   []FrontGroup{},
		Items:    []string{},
		Resting:  []string{},
	}
	for n, who := range band.Players {
		s, plays, err := notation.ScoreOf(i, plan.InClass, who, band.Conventions)
		if err != nil {
			return out, false, err
		}
		if !plays {
			if !slices.Contains(out.Resting, members[n].Section) {
				out.Resting = append(out.Resting, members[n].Section)
			}
			continue
		}
		// Whoever the step is not for still has something to do: the core gives them a part to the
		// same beats.
		own := i.AsksOf(who)
		// The longest score leads, so that nobody is cut off.
		if own && (!ok || s.Beats() > out.Beats) {
			if !ok {
				// The first instrument's home note: a band has many, and a drone has to be one.
				out.Drone = who.Instrument.Home().Frequency(band.Conventions.A4)
			}
			out.lead(s)
			ok = true
		}
		out.join(members[n], s, own)
	}
	out.shareItems()
	return out, ok, nil
}

// shareItems leaves to each group what is its own to tick, and to the room what is everybody's.
func (f *FrontStep) shareItems() {
	f.Items = slices.DeleteFunc(slices.Clone(f.Items), func(item string) bool {
		return slices.ContainsFunc(f.Groups, func(g FrontGroup) bool { return !slices.Contains(g.Items, item) })
	})
	for n := range f.Groups {
		g := &f.Groups[n]
		g.Items = slices.DeleteFunc(g.Items, func(item string) bool { return slices.Contains(f.Items, item) })
	}
}

// lead makes a score the one the room is counted by.
func (f *FrontStep) lead(s scores.Score) {
	f.Tempo, f.Beats, f.Ticked = s.TempoBPM, s.Beats(), s.Ticked
	f.Items, f.Cautions, f.Cues = s.Items, s.Cautions, []FrontCue{}
	for _, seg := range s.Segments {
		f.Cues = append(f.Cues, FrontCue{
			From:   seg.StartBeat,
			Beats:  seg.Beats,
			Phase:  seg.Phase,
			Active: seg.Phase.Active(),
			Text:   seg.Text,
		})
	}
}

// join adds an instrument to the group that reads the same.
func (f *FrontStep) join(m BandMember, s scores.Score, own bool) {
	notes := []FrontNote{}
	for _, seg := range s.Segments {
		// Rests and breaths are the room's; a group's line has its notes alone.
		if seg.Written != nil {
			note := FrontNote{From: seg.StartBeat, Beats: seg.Beats, Name: seg.WrittenName}
			note.Phase = seg.Phase
			if seg.Goal != nil {
				note.Goal = seg.Goal.Called
			}
			notes = append(notes, note)
		}
	}
	doing := ""
	if !own {
		// Said where a group does something else, or they would wonder why their line is empty.
		doing = s.Title
	}
	for k := range f.Groups {
		// Flutes and oboes read the same page; one line for both can be larger.
		same := slices.Equal(f.Groups[k].Notes, notes) && slices.Equal(f.Groups[k].Items, s.Items)
		if same && f.Groups[k].Doing == doing {
			if !slices.Contains(f.Groups[k].Names, m.Section) { // of two stages, say
				f.Groups[k].Names = append(f.Groups[k].Names, m.Section)
			}
			return
		}
	}
	f.Groups = append(f.Groups, FrontGroup{
		Names: []string{m.Section},
		Doing: doing,
		Notes: notes,
		Items: append([]string{}, s.Items...),
	})
}
