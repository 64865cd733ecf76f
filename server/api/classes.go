package api

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"fmt"
	"math/big"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/roster"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
	"earlychorus/server/problem"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// ClassSetUp is everything a director sets for a class.
type ClassSetUp struct {
	Class        view.ClassName       `json:"class"`
	Archived     bool                 `json:"archived"`
	FirstLesson  string               `json:"first_lesson" doc:"date; empty when it is not set"`
	Stage        scores.Stage         `json:"stage" doc:"by the weeks since the first lesson"`
	ClassMinutes float64              `json:"class_minutes"`
	HomeMinutes  float64              `json:"home_minutes" doc:"0: the stage's usual"`
	KeepDays     int                  `json:"keep_days" doc:"how long recordings are kept; measures stay"`
	Conventions  exercise.Conventions `json:"conventions"`
	Schools      []exercise.School    `json:"schools" nullable:"false"`
	Usual        []StageLimits        `json:"usual" doc:"our tolerances by stage" nullable:"false"`
	Tips         []measure.Advice     `json:"tips" doc:"with the class's own words" nullable:"false"`
	OwnTips      verdict.Book         `json:"own_tips" doc:"the class's own words by key"`
	Players      []PlayerSetUp        `json:"players" nullable:"false"`
	Fields       []roster.Field       `json:"fields" doc:"what the list says of a player, in the form's order" nullable:"false"`
	Directors    []string             `json:"directors" doc:"who directs the class, by name" nullable:"false"`
	Instruments  []InstrumentChoice   `json:"instruments" nullable:"false"`
	Exceptions   []ExceptionView      `json:"exceptions" doc:"that are not over" nullable:"false"`
	Today        string               `json:"today" format:"date"`
	Device       store.DeviceWord     `json:"device_word" doc:"takes of the last month that the player's device judged too, and how many it judged otherwise"`
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

// ExceptionView is days on which a player is asked for less.
type ExceptionView struct {
	ID       string `json:"id"`
	PlayerID string `json:"player_id"`
	StepID   string `json:"step_id" doc:"empty: every step"`
	From     string `json:"from" format:"date"`
	To       string `json:"to" format:"date"`
	Why      string `json:"why"`
}

// ClassPath names a class.
type ClassPath struct {
	Class string `path:"class" format:"uuid"`
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
		Stage:        class.StageOn(day),
		ClassMinutes: class.ClassMinutes,
		HomeMinutes:  class.HomeMinutes,
		KeepDays:     class.KeepDays,
		Conventions:  class.Conventions(),
		Schools:      exercise.Schools(),
		Usual:        []StageLimits{},
		Tips:         class.Tips.Advices(),
		OwnTips:      class.Tips,
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
	// Our own limits beside the class's, so that the page can show what differs.
	for s := scores.Stage(1); s <= 4; s++ {
		out.Usual = append(out.Usual, StageLimits{s, s.Limits()})
	}
	for _, i := range instrument.All() {
		out.Instruments = append(
			out.Instruments,
			InstrumentChoice{i.Key, i.Name, append([]instrument.Variant{}, i.Variants...), notesOf(i, out.Conventions)},
		)
	}
	if out.Device, err = a.Store.DeviceWordSince(ctx, class.ID, a.Now().AddDate(0, -1, 0)); err != nil {
		return nil, err
	}
	if out.Players, err = a.playersSetUp(ctx, class); err != nil {
		return nil, err
	}
	if out.Directors, err = a.directorsOf(ctx, class); err != nil {
		return nil, err
	}
	if out.Exceptions, err = a.exceptionsOf(ctx, class, day); err != nil {
		return nil, err
	}
	return &setUpOutput{out}, nil
}

// directorsOf lists who directs a class, by name.
func (a *API) directorsOf(ctx context.Context, class store.Class) ([]string, error) {
	directors, err := a.Store.DirectorsOf(ctx, class.ID)
	out := []string{}
	for _, d := range directors {
		out = append(out, d.Name)
	}
	return out, err
}

// exceptionsOf lists a class's exceptions that are not over on a day.
func (a *API) exceptionsOf(ctx context.Context, class store.Class, day time.Time) ([]ExceptionView, error) {
	exceptions, err := a.Store.ExceptionsSince(ctx, class.ID, day)
	out := []ExceptionView{}
	for _, e := range exceptions {
		shown := ExceptionView{
			ID:       e.ID,
			PlayerID: e.PlayerID,
			From:     view.Date(e.FirstDay),
			To:       view.Date(e.LastDay),
			Why:      e.Why,
		}
		if e.StepID != nil {
			shown.StepID = *e.StepID
		}
		out = append(out, shown)
	}
	return out, err
}

// playersSetUp lists players as a score does, by instrument and then by name, each
// in the section the instrument belongs to.
func (a *API) playersSetUp(ctx context.Context, class store.Class) ([]PlayerSetUp, error) {
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	out := []PlayerSetUp{}
	for _, i := range instrument.All() { // in score order
		for _, p := range players {
			if p.Instrument == i.Key {
				out = append(out, PlayerSetUp{ID: p.ID, Person: p.Person, Section: i.Section})
			}
		}
	}
	return out, nil
}

// newClassInput begins a class. With Like it is the next year of another one the
// asker directs; players who are not in Keep stay behind with their takes.
type newClassInput struct {
	Body struct {
		Name string   `json:"name" minLength:"1" maxLength:"80"`
		Like string   `json:"like,omitempty" doc:"a class whose conventions, and some of whose players, it takes over: the next year of it"`
		Keep []string `json:"keep" nullable:"false" doc:"players of that class who come along"`
	}
}

// createClass makes a class; the next year of one when it is like another.
func (a *API) createClass(ctx context.Context, in *newClassInput) (*setUpOutput, error) {
	who := a.who(ctx).Subject
	school, err := a.Store.SchoolOfDirector(ctx, who)
	if err != nil {
		return nil, err
	}
	class := store.Class{
		ID:           store.NewID(),
		SchoolID:     school.ID,
		Name:         in.Body.Name,
		ClassMinutes: 6,
	}
	if class.Code, err = a.freeCode(ctx); err != nil {
		return nil, err
	}
	var along []store.Player
	// The door is asked for that class too: its conventions are not everybody's.
	if in.Body.Like != "" {
		before, err := a.Store.ClassFor(ctx, a.who(ctx), in.Body.Like)
		if err != nil {
			return nil, err
		}
		// What was agreed with players and parents goes on into the next year.
		class.OwnConventions, class.Tips = before.OwnConventions, before.Tips
		class.ClassMinutes, class.HomeMinutes = before.ClassMinutes, before.HomeMinutes
		if along, err = a.along(ctx, before, class.ID, in.Body.Keep); err != nil {
			return nil, err
		}
	}
	if err := a.Store.AddClass(ctx, class, who); err != nil {
		return nil, err
	}
	if err := a.Store.SaveRoster(ctx, along, nil); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &ClassPath{class.ID})
}

// along copies players into the next year's class, with their PINs.
func (a *API) along(
	ctx context.Context,
	before store.Class,
	classID string,
	keep []string,
) (out []store.Player, err error) {
	for _, id := range keep {
		p, err := a.Store.PlayerOfClass(ctx, before.ID, id)
		if err != nil {
			return nil, err
		}
		// A player of the new class: takes of the year before stay with the class they were played
		// in.
		p.ID, p.ClassID = store.NewID(), classID
		out = append(out, p)
	}
	return out, nil
}

// codeWords are said and typed without mistakes.
var codeWords = []string{
	"AMBER",
	"BADGE",
	"BIRCH",
	"BRIDGE",
	"CANDLE",
	"CEDAR",
	"CLOVER",
	"COMET",
	"CORAL",
	"FERRY",
	"FINCH",
	"FROST",
	"GARDEN",
	"HARBOR",
	"HAZEL",
	"HERON",
	"ISLAND",
	"KETTLE",
	"LANTERN",
	"LEMON",
	"MAPLE",
	"MARBLE",
	"MEADOW",
	"OTTER",
	"PEBBLE",
	"PEPPER",
	"PLUM",
	"RIVER",
	"ROBIN",
	"SADDLE",
	"SILVER",
	"SPRUCE",
	"STONE",
	"THISTLE",
	"TIMBER",
	"WALNUT",
}

// freeCode makes a code that no class has.
func (a *API) freeCode(ctx context.Context) (string, error) {
	for {
		code := fmt.Sprintf(
			"%s-%s-%d",
			codeWords[randomBelow(len(codeWords))],
			codeWords[randomBelow(len(codeWords))],
			10+randomBelow(90),
		)
		// Tried again until one is free; of a hundred thousand few are taken.
		taken, err := a.Store.CodeTaken(ctx, code)
		if err != nil || !taken {
			return code, err
		}
	}
}

// randomBelow cannot be foreseen: codes and PINs open doors.
func randomBelow(n int) int {
	v, err := rand.Int(rand.Reader, big.NewInt(int64(n)))
	if err != nil {
		panic(err) // the system has no randomness
	}
	return int(v.Int64())
}

// settingsInput is all of the settings at once: a form that saves half of them would
// leave a class judged by two schools.
type settingsInput struct {
	ClassPath
	Body struct {
		Name         string               `json:"name" minLength:"1" maxLength:"80"`
		FirstLesson  string               `json:"first_lesson" doc:"date; empty when it is not known"`
		ClassMinutes float64              `json:"class_minutes" minimum:"1" maximum:"60"`
		HomeMinutes  float64              `json:"home_minutes" minimum:"0" maximum:"60"`
		KeepDays     int                  `json:"keep_days,omitempty" minimum:"7" maximum:"3650" doc:"left out: as it was"`
		Conventions  exercise.Conventions `json:"conventions"`
		Tips         verdict.Book         `json:"tips"`
	}
}

// saveSettings changes how takes are judged from now on. Takes already heard keep
// their word; they were played under the old rules.
func (a *API) saveSettings(ctx context.Context, in *settingsInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if err := in.Body.Conventions.Check(); err != nil {
		return nil, err
	}
	if unknown := in.Body.Tips.Unknown(); len(unknown) > 0 {
		return nil, problem.Input("tips", fmt.Sprintf("there is no tip %q", unknown[0]))
	}
	for key, words := range in.Body.Tips {
		if len(words) > 300 {
			return nil, exercise.ParameterError{Field: "tips." + key, Remedy: "use at most 300 letters"}
		}
	}
	// Emptied is an answer: stages then are only what the director sets.
	class.FirstLesson = nil
	if in.Body.FirstLesson != "" {
		day, err := time.Parse(time.DateOnly, in.Body.FirstLesson)
		if err != nil {
			return nil, problem.Input("first_lesson", "write the day as 2026-09-02")
		}
		class.FirstLesson = &day
	}
	if class.OwnConventions, err = json.Marshal(in.Body.Conventions); err != nil {
		return nil, err
	}
	class.Name, class.Tips = in.Body.Name, in.Body.Tips
	class.ClassMinutes, class.HomeMinutes = in.Body.ClassMinutes, in.Body.HomeMinutes
	// Left out means as it was: the tips' form saves the same settings without asking for it.
	if in.Body.KeepDays > 0 {
		class.KeepDays = in.Body.KeepDays
	}
	if err := a.Store.SaveSettings(ctx, class); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

// archiveClass closes a class to its players. Nothing is deleted, and its director
// still reads all of it.
func (a *API) archiveClass(ctx context.Context, in *ClassPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	if err := a.Store.ArchiveClass(ctx, class.ID, a.Now().UTC()); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, in)
}

// shareInput names a colleague by email. Nobody is invited by it: the account must
// be there, or the answer says that it is not.
type shareInput struct {
	ClassPath
	Body struct {
		Email string `json:"email" maxLength:"200" doc:"of a director who has an account here"`
	}
}

// shareClass lets another director direct a class too.
func (a *API) shareClass(ctx context.Context, in *shareInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	other, err := a.Store.DirectorByEmail(ctx, in.Body.Email)
	if errors.Is(err, store.ErrNotFound) {
		return nil, problem.Input(
			"email",
			"no director has an account with this address; ask your administrator to make one",
		)
	}
	if err == nil {
		err = a.Store.ShareClass(ctx, class.ID, other.ID)
	}
	if err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

// exampleInput asks what conventions would make of one instrument and stage, before
// they are saved.
type exampleInput struct {
	ClassPath
	Body struct {
		Conventions exercise.Conventions `json:"conventions"`
		Instrument  string               `json:"instrument"`
		Stage       scores.Stage         `json:"stage" minimum:"1" maximum:"4"`
	}
}

// exampleOutput is the effects in words. Music is worked out here and never in the
// page.
type exampleOutput struct {
	Body struct {
		Effects []Effect `json:"effects" nullable:"false"`
	}
}

// Effect is what one convention makes of an example.
type Effect struct {
	About string `json:"about"`
	Text  string `json:"text"`
}

// showExample works a small example out under conventions that are being set.
func (a *API) showExample(ctx context.Context, in *exampleInput) (*exampleOutput, error) {
	if _, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class); err != nil {
		return nil, err
	}
	c := in.Body.Conventions
	if err := c.Check(); err != nil {
		return nil, err
	}
	who, err := NotationAsked{Instrument: in.Body.Instrument, Stage: in.Body.Stage}.player()
	if err != nil {
		return nil, err
	}
	out := &exampleOutput{}
	out.Body.Effects = []Effect{}
	add := func(about, text string) {
		if text != "" {
			out.Body.Effects = append(out.Body.Effects, Effect{about, text})
		}
	}
	add("The class's long tone", c.LongToneStep().Sentence())
	// Examples that do not suit the instrument are left out without a word.
	if s, err := exercise.New(exercise.KindTuningNote, nil).Score(who, c); err == nil {
		t := s.Targets()[0]
		add("Tuning", fmt.Sprintf("%s, sounding %s, %.1f Hz", t.WrittenName, t.Concert, t.Target.Frequency(c.A4)))
	}
	if s, err := exercise.New("chromatic-loop", map[string]any{"half": "whole", "loops": 1}).Score(who, c); err == nil {
		add("Fingers in a chromatic run", fingersOf(s))
	}
	if s, err := exercise.New("buzz-at-once", nil).Score(who, c); err == nil {
		add("Buzzing", firstWords(s))
	}
	add(fmt.Sprintf("Clean at stage %d", in.Body.Stage), limitsInWords(c, in.Body.Stage))
	spot := verdict.Situation{Instrument: who.Instrument, Direction: measure.High, Air: c.Air}
	if tips := (verdict.Book{}).Answers(measure.CauseWrongNote, spot); len(tips) > 0 {
		add("A tip", tips[0].Text)
	}
	shown := "the ribbon from the start"
	if c.EarsFirst() {
		shown = "no pitch until the take is over"
	}
	add("On screen while playing", shown)
	return out, nil
}

// limitsInWords says what is clean at a stage.
func limitsInWords(c exercise.Conventions, stage scores.Stage) string {
	hard := "counted as tried"
	if c.HardNotes == exercise.GradedAlike {
		hard = "graded like the rest"
	}
	l := c.LimitsOf(stage)
	return fmt.Sprintf("within ±%.0f cents, wavering at most ±%.0f, changes in %.0f ms, hard notes %s",
		l.Centre, l.Waver, 1000*l.ChangeTime, hard)
}

// fingersOf lists the fingerings of the first notes of a score.
func fingersOf(s scores.Score) (out string) {
	for n, t := range s.Targets() {
		// Six fingerings show the school; a whole octave would fill the page.
		if n == 6 {
			break
		}
		if t.Fingering != nil {
			if out != "" {
				out += ", "
			}
			out += t.WrittenName + " " + t.Fingering.Text
		}
	}
	return out
}

// firstWords is what a score says first: a notice, or what to do.
func firstWords(s scores.Score) string {
	if len(s.Notices) > 0 {
		return s.Notices[0]
	}
	return s.Segments[0].Text
}

// exceptionInput excuses one player from a day to a day, both counted. Times of day
// do not matter: a school day is whole.
type exceptionInput struct {
	ClassPath
	Body struct {
		PlayerID string `json:"player_id" format:"uuid"`
		StepID   string `json:"step_id,omitempty" doc:"left out: every step"`
		From     string `json:"from" format:"date"`
		To       string `json:"to" format:"date"`
		Why      string `json:"why" maxLength:"100"`
	}
}

// addException refuses a player of another class, whoever asks, and days that end
// before they begin.
func (a *API) addException(ctx context.Context, in *exceptionInput) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	p, err := a.Store.PlayerOfClass(ctx, class.ID, in.Body.PlayerID)
	if err != nil {
		return nil, err
	}
	// Days have no time zone: a player is away on the school's days.
	from, errFrom := time.Parse(time.DateOnly, in.Body.From)
	to, errTo := time.Parse(time.DateOnly, in.Body.To)
	if errFrom != nil || errTo != nil || to.Before(from) {
		return nil, problem.Input("to", "give a first and a last day, in that order")
	}
	e := store.Exception{
		ID:       store.NewID(),
		PlayerID: p.ID,
		FirstDay: from,
		LastDay:  to,
		Why:      in.Body.Why,
	}
	if in.Body.StepID != "" {
		step, err := a.Store.StepOfClass(ctx, class.ID, in.Body.StepID)
		if err != nil {
			return nil, err
		}
		e.StepID = &step.ID
	}
	if err := a.Store.AddException(ctx, e); err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}

// exceptionPath is an exception of the class in the address; one of another class is
// not found.
type exceptionPath struct {
	ClassPath
	Exception string `path:"exception" format:"uuid"`
}

// endException asks everything of the player again from now on. The days that were
// excused stay excused.
func (a *API) endException(ctx context.Context, in *exceptionPath) (*setUpOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err == nil {
		err = a.Store.EndException(ctx, in.Exception, class.ID)
	}
	if err != nil {
		return nil, err
	}
	return a.showSetUp(ctx, &in.ClassPath)
}
