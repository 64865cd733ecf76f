package api

import (
	"context"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/roster"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
	"earlychorus/server/classcode"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// ClassSetUp is everything a director sets for a class.
type ClassSetUp struct {
	Class        view.ClassName       `json:"class"`
	Archived     bool                 `json:"archived"`
	WeakCode     bool                 `json:"weak_code" doc:"the code is from when codes were short: give a new one"`
	Guessed      int                  `json:"guessed" doc:"wrong PINs that strangers tried today, when there were many"`
	Simulated    store.Simulating     `json:"simulated_players" enum:"no,tried,demo" doc:"who may hand in simulated players"`
	FirstLesson  string               `json:"first_lesson" doc:"date; empty when it is not set"`
	Stage        scores.Stage         `json:"stage" doc:"by the weeks since the first lesson"`
	ClassMinutes float64              `json:"class_minutes"`
	HomeMinutes  float64              `json:"home_minutes" doc:"0: the stage's usual"`
	KeepDays     int                  `json:"keep_days" doc:"how long recordings are kept; measures stay"`
	KeepVoice    int                  `json:"keep_voice_days" doc:"0: as long as recordings"`
	KeepMeasures int                  `json:"keep_measures_days" doc:"0: as long as the class"`
	Conventions  exercise.Conventions `json:"conventions"`
	Schools      []exercise.School    `json:"schools" nullable:"false"`
	Usual        []StageLimits        `json:"usual" doc:"our tolerances by stage" nullable:"false"`
	Tips         []measure.Advice     `json:"tips" doc:"with the class's own words" nullable:"false"`
	OwnTips      verdict.Book         `json:"own_tips" doc:"the class's own words by key"`
	Remedies     []plan.RemedyLine    `json:"remedies" doc:"what is assigned for which cause" nullable:"false"`
	Kinds        []KindChoice         `json:"kinds" doc:"that may be assigned" nullable:"false"`
	Players      []PlayerSetUp        `json:"players" nullable:"false"`
	Fields       []roster.Field       `json:"fields" doc:"what the list says of a player, in the form's order" nullable:"false"`
	Directors    []DirectorOfClass    `json:"directors" doc:"who directs the class, by name" nullable:"false"`
	Invited      []Invited            `json:"invited" doc:"who was asked to direct it too" nullable:"false"`
	Instruments  []InstrumentChoice   `json:"instruments" nullable:"false"`
	Exceptions   []ExceptionView      `json:"exceptions" doc:"that are not over" nullable:"false"`
	Today        string               `json:"today" format:"date"`
	Begun        store.ClassBegun     `json:"begun" doc:"how far a new class has come"`
	Device       store.DeviceWord     `json:"device_word" doc:"takes of the last month that the player's device judged too, and how many it judged otherwise"`
}

// KindChoice is a kind of exercise by its name.
type KindChoice struct {
	Key  string `json:"key"`
	Name string `json:"name"`
}

func kindChoices() []KindChoice {
	out := []KindChoice{}
	for _, k := range exercise.Catalogue() {
		out = append(out, KindChoice{k.Key, k.Name})
	}
	return out
}

// StageLimits are the tolerances of one stage.
type StageLimits struct {
	Stage  scores.Stage  `json:"stage"`
	Limits scores.Limits `json:"limits"`
}

// PlayerSetUp is a player as the director edits one.
type PlayerSetUp struct {
	ID string `json:"id"`
	roster.Person
	Section string `json:"section"`
}

// InstrumentChoice is an instrument of the table.
type InstrumentChoice struct {
	Key      string               `json:"key"`
	Name     string               `json:"name"`
	Variants []instrument.Variant `json:"variants" nullable:"false"`
	Notes    []NoteHardness       `json:"notes" nullable:"false" doc:"of the beginner range, from low to high"`
}

// NoteHardness is a note and whether it counts as tried in this class.
type NoteHardness struct {
	Sounding music.MIDI `json:"sounding_midi"`
	Written  string     `json:"written"`
	Hard     bool       `json:"hard"`
	Usual    bool       `json:"usual" doc:"ours"`
}

// notesOf lists an instrument's notes as the class has them.
func notesOf(i instrument.Instrument, c exercise.Conventions) []NoteHardness {
	// Spelled as players read them: a director marks what stands in the children's books.
	key := exercise.WrittenKey(i)
	out := []NoteHardness{}
	for m := i.Beginner.From; m <= i.Beginner.To; m++ {
		out = append(out, NoteHardness{m, c.Naming.WithOctave(key.Spell(i.Written(m))), c.IsHard(i, m), i.IsHard(m)})
	}
	return out
}

// setUpOutput is answered by every route of the set-up, since a change of one thing
// (a stage, a player) shows in others.
type setUpOutput struct{ Body ClassSetUp }

// showSetUp answers with everything a director sets for a class: small enough to go
// in one answer, and then nothing on the page is older than the rest.
func (a *API) showSetUp(ctx context.Context, in *ClassPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	day := class.Day(a.Now())
	out := ClassSetUp{
		Class:        view.ClassNameOf(class),
		Archived:     class.ArchivedAt != nil,
		WeakCode:     !classcode.IsStrong(class.Code),
		Simulated:    class.SimulatedPlayers,
		Stage:        class.StageOn(day),
		ClassMinutes: class.ClassMinutes,
		HomeMinutes:  class.HomeMinutes,
		KeepDays:     class.KeepDays,
		KeepVoice:    class.KeepVoiceDays,
		KeepMeasures: class.KeepMeasuresDays,
		Conventions:  class.Conventions(),
		Schools:      exercise.Schools(),
		Usual:        []StageLimits{},
		Tips:         class.Tips.Advices(),
		OwnTips:      class.Tips,
		Remedies:     class.Remedies.Lines(),
		Kinds:        kindChoices(),
		Players:      []PlayerSetUp{},
		Fields:       roster.OnForm(),
		Instruments:  []InstrumentChoice{},
		Today:        day.Format(time.DateOnly),
	}
	if out.OwnTips == nil {
		out.OwnTips = verdict.Book{}
	}
	if class.FirstLesson != nil {
		out.FirstLesson = class.FirstLesson.Format(time.DateOnly)
	}
	if out.Begun, err = a.Store.Begun(ctx, class.ID); err != nil {
		return nil, err
	}
	// Our own limits beside the class's, so that the page can show what differs.
	for s := scores.Stage(1); s <= 4; s++ {
		out.Usual = append(out.Usual, StageLimits{s, s.Limits()})
	}
	for _, i := range instrument.Band() {
		out.Instruments = append(
			out.Instruments,
			InstrumentChoice{i.Key, i.Name, append([]instrument.Variant{}, i.Variants...), notesOf(i, out.Conventions)},
		)
	}
	if out.Guessed, err = a.guessed(ctx, class.ID); err != nil {
		return nil, err
	}
	if out.Device, err = a.Store.DeviceWordSince(ctx, class.ID, a.Now().AddDate(0, -1, 0)); err != nil {
		return nil, err
	}
	if out.Players, err = a.playersSetUp(ctx, class); err != nil {
		return nil, err
	}
	if out.Directors, out.Invited, err = a.directorsOf(ctx, class); err != nil {
		return nil, err
	}
	if out.Exceptions, err = a.exceptionsOf(ctx, class, day); err != nil {
		return nil, err
	}
	return &setUpOutput{out}, nil
}

// playersSetUp lists players as a score does, by instrument and then by name, each
// in the section the instrument belongs to.
func (a *API) playersSetUp(ctx context.Context, class store.Class) ([]PlayerSetUp, error) {
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	out := []PlayerSetUp{}
	for _, i := range instrument.Band() { // in score order
		for _, p := range players {
			if p.Instrument == i.Key {
				out = append(out, PlayerSetUp{ID: p.ID, Person: p.Person, Section: i.Section})
			}
		}
	}
	return out, nil
}
