// Package practicepage is what a player's page asks for: today's steps worked out for
// the player, how they have gone, and the days ahead, with all that a device needs
// to go on by itself.
package practicepage

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"time"

	"github.com/google/uuid"

	"earlychorus/core/consent"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/meter"
	"earlychorus/core/plan"
	"earlychorus/core/playtest"
	"earlychorus/core/practice"
	"earlychorus/core/ribbon"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/caring"
	"earlychorus/server/intake"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// Practice is what a player has to do today, and how it has gone so far, with
// all that a device needs to go on by itself.
type Practice struct {
	PlayerID   string             `json:"player_id"`
	Player     string             `json:"player"`
	Instrument string             `json:"instrument"`
	Fingered   bool               `json:"fingered" doc:"its notes are in the book of fingerings"`
	Day        string             `json:"day" format:"date"`
	Steps      []PracticeStep     `json:"steps" nullable:"false" doc:"today's, in order; none on a day without a plan"`
	Comments   []view.CommentView `json:"comments" nullable:"false" doc:"the director's latest"`
	Answers    []DirectorsAnswer  `json:"answers" nullable:"false" doc:"to what the player asked, the latest first"`
	StandIns   []synth.StandIn    `json:"stand_ins" nullable:"false" doc:"simulated players that can stand in for the microphone"`
	Blowers    []meter.Choice     `json:"blowers" nullable:"false" doc:"simulated players at a simulated air meter"`
	Setting    practice.Setting   `json:"setting" doc:"what scores are worked out from"`
	Tips       verdict.Book       `json:"tips" doc:"the class's own words"`
	May        consent.May        `json:"may" doc:"what the player's home agreed to; what is not recorded is judged on the device alone"`
	Care       []caring.Due       `json:"care" nullable:"false" doc:"what the instrument needs every week, month and term"`
}

// DirectorsAnswer is a director's answer to what the player asked.
type DirectorsAnswer struct {
	ID     string `json:"id"`
	Asked  string `json:"asked" doc:"the player's words; empty where a button said it"`
	Answer string `json:"answer"`
	By     string `json:"by"`
	At     string `json:"answered_at" format:"date-time"`
}

// PracticeStep is a step worked out for the player's own instrument.
type PracticeStep struct {
	practice.Worked
	ID       string             `json:"id"`
	Version  int                `json:"version"`
	Name     string             `json:"name" doc:"the director's own, or the kind's"`
	Called   bool               `json:"called,omitempty" doc:"the name is the director's own"`
	Sentence string             `json:"sentence"`
	Why      string             `json:"why"`
	Times    int                `json:"times"`
	Step     practice.AskedStep `json:"step" doc:"before it was worked out"`
	Takes    []PracticeTake     `json:"takes" doc:"today's of this step, newest first" nullable:"false"`
	Ticked   []bool             `json:"ticked" doc:"which items of a ticked step are done today" nullable:"false"`
	Ladder   *practice.Ladder   `json:"ladder,omitempty" doc:"of a step that is a rung"`
	Best     float64            `json:"best_s,omitempty" doc:"the player's longest hold so far, where it matters"`
	Recent   []string           `json:"recent_tips" doc:"keys of the tips of the step's latest takes, latest first" nullable:"false"`
	Result   verdict.Result     `json:"result,omitempty" doc:"the best of today, once there is one" enum:"clean,nearly,not-yet,cant-tell"`
	Model    string             `json:"model,omitempty" doc:"the director's own playing of it, by its number"`
	Test     *PracticeTest      `json:"test,omitempty" doc:"of a step that is a test"`
}

// PracticeTest is a test, and how it stands for the player.
type PracticeTest struct {
	playtest.Test
	playtest.Standing
}

// PracticeTake is one of today's takes, small.
type PracticeTake struct {
	ID     string         `json:"id"`
	State  view.TakeState `json:"state" enum:"waiting,done,failed"`
	Played string         `json:"played_at" format:"date-time"`
	Result verdict.Result `json:"result,omitempty" enum:"clean,nearly,not-yet,cant-tell"`
	Ribbon *ribbon.Ribbon `json:"ribbon,omitempty"`
}

// PracticeWeek is the days ahead, for a device that will be without a network.
type PracticeWeek struct {
	Days []PracticeDay `json:"days" nullable:"false" doc:"from tomorrow on"`
}

// PracticeDay is a day's steps as they are planned now.
type PracticeDay struct {
	Day   string         `json:"day" format:"date"`
	Steps []PracticeStep `json:"steps" nullable:"false"`
}

// How long a comment stays on the player's page, and how many.
const (
	commentDays  = 7
	mostComments = 5
)

// ahead is how many days a device looks ahead: over a weekend and a week.
const ahead = 8

// Of returns a player's page as of now.
func Of(ctx context.Context, s *store.Store, p store.Player, now time.Time) (Practice, error) {
	i, err := p.Plays()
	if err != nil {
		return Practice{}, err
	}
	day := p.Class.Day(now)
	standing, err := s.Standing(ctx, p)
	if err != nil {
		return Practice{}, err
	}
	out := Practice{
		PlayerID:   p.ID,
		Player:     p.ShortName(),
		Instrument: i.Name,
		Fingered:   i.IsPitched(),
		Day:        view.Date(day),
		Answers:    []DirectorsAnswer{},
		StandIns:   []synth.StandIn{},
		Blowers:    []meter.Choice{},
		Setting:    intake.Setting(standing, day),
		Tips:       p.Class.Tips,
	}
	// Simulated players are for invented classes, and for those who try the program.
	if p.Class.SimulatedPlayers != store.SimulatingNo {
		out.StandIns = synth.StandIns()
	}
	if p.Class.SimulatedPlayers == store.SimulatingDemo {
		out.Blowers = meter.StandIns()
	}
	if out.May, err = s.MayOf(ctx, p.ID); err != nil {
		return Practice{}, err
	}
	if out.Steps, err = stepsOn(ctx, s, standing, day); err != nil {
		return Practice{}, err
	}
	done, err := s.LatestCare(ctx, []string{p.ID})
	if err != nil {
		return Practice{}, err
	}
	if out.Care, err = caring.Of(p, done[p.ID], day); err != nil {
		return Practice{}, err
	}
	for n := range out.Steps {
		one := &out.Steps[n]
		// The device judges too, and must not repeat a tip the server would not give.
		if one.Recent, err = s.LatestTips(ctx, p.ID, one.ID, verdict.AskAfter); err != nil {
			return Practice{}, err
		}
	}
	if err := addDone(ctx, s, out.Steps, p, day); err != nil {
		return Practice{}, err
	}
	comments, err := s.CommentsForPlayer(ctx, p.ID, now.AddDate(0, 0, -commentDays), mostComments)
	out.Comments = view.CommentsOf(comments)
	if err != nil {
		return out, err
	}
	answers, err := s.AnswersFor(ctx, p.ID, now.AddDate(0, 0, -commentDays), mostComments)
	for _, f := range answers {
		out.Answers = append(out.Answers, DirectorsAnswer{
			ID:     f.ID,
			Asked:  f.Words,
			Answer: f.Answer,
			By:     f.Director.Name,
			At:     f.AnsweredAt.UTC().Format(time.RFC3339),
		})
	}
	return out, err
}

// Trial returns a page as a player of an instrument would have it, who is not there: on the
// first day from today on that has a step, with simulated players at the microphone. Nothing of it
// may be recorded.
func Trial(
	ctx context.Context, s *store.Store, class store.Class, of instrument.Instrument, now time.Time,
) (Practice, error) {
	p := store.Player{ID: uuid.NewString(), ClassID: class.ID, Class: class}
	p.FirstName, p.Instrument = "Somebody", of.Key
	out, err := Of(ctx, s, p, now)
	if err != nil {
		return out, err
	}
	if len(out.Steps) == 0 {
		week, err := WeekAhead(ctx, s, p, now)
		if err != nil {
			return out, err
		}
		for _, d := range week.Days {
			if len(d.Steps) > 0 {
				out.Day, out.Steps = d.Day, d.Steps
				break
			}
		}
	}
	for n := range out.Steps {
		out.Steps[n].Model = "" // it is the players' to hear; a director has it in the plan
	}
	out.PlayerID, out.May, out.StandIns = "", consent.May{}, synth.StandIns()
	return out, nil
}

// WeekAhead returns a player's steps from tomorrow on.
func WeekAhead(ctx context.Context, s *store.Store, p store.Player, now time.Time) (PracticeWeek, error) {
	standing, err := s.Standing(ctx, p)
	if err != nil {
		return PracticeWeek{}, err
	}
	out := PracticeWeek{[]PracticeDay{}}
	today := p.Class.Day(now)
	// Worked out from where the player stands now; a rung that is passed meanwhile is asked
	// for anew.
	for n := 1; n <= ahead; n++ {
		day := today.AddDate(0, 0, n)
		steps, err := stepsOn(ctx, s, standing, day)
		if err != nil {
			return PracticeWeek{}, err
		}
		if err := addTests(ctx, s, steps, p.ID); err != nil {
			return PracticeWeek{}, err
		}
		out.Days = append(out.Days, PracticeDay{view.Date(day), steps})
	}
	return out, nil
}

// stepsOn works a day's steps out for a player; those that are not for the
// instrument, or that the player is excused from, are left out.
func stepsOn(ctx context.Context, s *store.Store, standing store.Standing, day time.Time) ([]PracticeStep, error) {
	p := standing.Player
	steps, err := s.StepsOn(ctx, p.ClassID, day, plan.AtHome)
	if err != nil {
		return nil, err
	}
	excused, err := s.ExceptionsOn(ctx, p.ClassID, day)
	if err != nil {
		return nil, err
	}
	out := []PracticeStep{}
	for _, step := range steps {
		if store.Excused(excused, p.ID, step.ID) {
			continue
		}
		one, err := stepOf(step, standing, day)
		// Left out without a word: flutes need not read of what brass buzz.
		if errors.Is(err, exercise.ErrNotFor) {
			continue
		}
		if err != nil {
			return nil, err
		}
		out = append(out, one)
	}
	return out, nil
}

// stepOf is a step as one player reads it where they stand. The core works the score
// out; it is kept only when it is played.
func stepOf(step store.Step, standing store.Standing, day time.Time) (PracticeStep, error) {
	worked, err := intake.Work(step, standing, day, 0)
	if err != nil {
		return PracticeStep{}, err
	}
	x, err := step.Exercise()
	if err != nil {
		return PracticeStep{}, err
	}
	out := PracticeStep{
		Worked:   worked,
		ID:       step.ID,
		Version:  step.Version,
		Name:     cmp.Or(step.Called, x.Kind.Name),
		Called:   step.Called != "",
		Sentence: x.Sentence(),
		// The director's reason, or the kind's own: a step without a reason is a chore.
		Why:    cmp.Or(step.Why, x.Kind.Why),
		Times:  step.Times,
		Step:   practice.Asked(x),
		Takes:  []PracticeTake{},
		Ticked: make([]bool, len(worked.Score.Items)),
		Recent: []string{},
	}
	if step.Test != nil {
		out.Test = &PracticeTest{Test: *step.Test}
	}
	// Sent only where it matters: a best that is not asked for would be a number to worry
	// about.
	if worked.Score.Growing {
		out.Best = standing.Best
	}
	return out, out.addLadder(standing, day)
}

// addLadder adds where the player stands on the ladder that the step is a rung of.
func (s *PracticeStep) addLadder(standing store.Standing, day time.Time) error {
	i, err := standing.Player.Plays()
	if err != nil {
		return err
	}
	var now *ladder.State
	if state, tried := standing.Ladders[s.Score.Ladder]; tried {
		now = &state
	}
	if ladder, known := practice.LadderOf(s.Score.Ladder, i, now, s.Score.Rung, view.Date(day)); known {
		s.Ladder = &ladder
	}
	return nil
}

// addDone adds what a player did today to the steps.
func addDone(ctx context.Context, s *store.Store, steps []PracticeStep, p store.Player, day time.Time) error {
	takes, err := s.TakesOfPlayerOn(ctx, p.ID, day)
	if err != nil {
		return err
	}
	ids := make([]string, len(takes))
	for n, t := range takes {
		ids[n] = t.ID
	}
	small, err := s.SmallAnalyses(ctx, ids)
	if err != nil {
		return err
	}
	ticks, err := s.TicksOfPlayer(ctx, p.ID, day)
	if err != nil {
		return err
	}
	if err := errors.Join(addTests(ctx, s, steps, p.ID), addModels(ctx, s, steps, p)); err != nil {
		return err
	}
	for n := range steps {
		step := &steps[n]
		for _, t := range takes {
			if t.StepID == step.ID {
				step.addTake(t, small)
			}
		}
		for _, t := range ticks {
			// A tick of an earlier version with other items says nothing of these.
			if t.StepID == step.ID && len(t.Done) == len(step.Ticked) {
				step.Ticked, step.Result = t.Done, t.Result
			}
		}
	}
	return nil
}

// addModels adds what the class's directors have played of the steps: for the instrument, or
// else for all.
func addModels(ctx context.Context, s *store.Store, steps []PracticeStep, p store.Player) error {
	asks := make([][]byte, len(steps))
	for n, step := range steps {
		x, err := step.Step.Step()
		if err != nil {
			return err
		}
		asks[n] = store.AsksKey(x)
	}
	models, err := s.ModelsOf(ctx, p.ClassID, asks)
	for n := range steps {
		for _, m := range models {
			own := m.Instrument == p.Instrument
			if bytes.Equal(m.Asks, asks[n]) && (own || m.Instrument == "" && steps[n].Model == "") {
				steps[n].Model = m.ID
				if own {
					break
				}
			}
		}
	}
	return err
}

// addTests adds how the tests among the steps stand: their takes are of many days.
func addTests(ctx context.Context, s *store.Store, steps []PracticeStep, playerID string) error {
	var ids []string
	for _, step := range steps {
		if step.Test != nil {
			ids = append(ids, step.ID)
		}
	}
	if len(ids) == 0 {
		return nil
	}
	takes, err := s.TakesOfTests(ctx, ids, playerID)
	for _, step := range steps {
		if step.Test != nil {
			step.Test.Standing = store.StandingIn(step.Test.Test, step.ID, playerID, takes)
		}
	}
	return err
}

// addTake shows a take of today under its step. The best result of the day is the
// step's.
func (s *PracticeStep) addTake(t store.Take, small map[string]store.Analysis) {
	found, analysed := small[t.ID]
	shown := PracticeTake{ID: t.ID, Played: view.Instant(t.PlayedAt), State: view.StateOf(t.Failure, analysed)}
	if analysed {
		shown.Result, shown.Ribbon = found.Result, &found.Ribbon
		s.Result = verdict.Better(s.Result, shown.Result)
	}
	s.Takes = append(s.Takes, shown)
}
