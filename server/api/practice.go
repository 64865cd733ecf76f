package api

import (
	"context"
	"errors"
	"fmt"
	"hash/fnv"
	"net/http"
	"time"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/meter"
	"earlychorus/core/plan"
	"earlychorus/core/practice"
	"earlychorus/core/ribbon"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// Practice is what a player has to do today, and how it has gone so far, with
// all that a device needs to go on by itself.
type Practice struct {
	PlayerID   string           `json:"player_id"`
	Player     string           `json:"player"`
	Instrument string           `json:"instrument"`
	Day        string           `json:"day" format:"date"`
	Steps      []PracticeStep   `json:"steps" nullable:"false" doc:"today's, in order; none on a day without a plan"`
	Comments   []CommentView    `json:"comments" nullable:"false" doc:"the director's latest"`
	StandIns   []synth.StandIn  `json:"stand_ins" nullable:"false" doc:"simulated players that can stand in for the microphone"`
	Blowers    []meter.Choice   `json:"blowers" nullable:"false" doc:"simulated players at a simulated air meter"`
	Setting    practice.Setting `json:"setting" doc:"what scores are worked out from"`
	Tips       verdict.Book     `json:"tips" doc:"the class's own words"`
}

// PracticeStep is a step worked out for the player's own instrument.
type PracticeStep struct {
	practice.Worked
	ID       string             `json:"id"`
	Version  int                `json:"version"`
	Name     string             `json:"name" doc:"the kind's"`
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
}

// PracticeTake is one of today's takes, small.
type PracticeTake struct {
	ID     string         `json:"id"`
	State  string         `json:"state" enum:"waiting,done,failed"`
	Played string         `json:"played_at" format:"date-time"`
	Result verdict.Result `json:"result,omitempty" enum:"clean,nearly,not-yet,cant-tell"`
	Ribbon *ribbon.Ribbon `json:"ribbon,omitempty"`
}

type practiceOutput struct{ Body Practice }

// commentDays is how long a comment stays on the player's page.
const (
	commentDays  = 7
	mostComments = 5
)

func (a *API) showPractice(ctx context.Context, _ *struct{}) (*practiceOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	i, err := instrument.Get(player.Instrument)
	if err != nil {
		return nil, err
	}
	day := player.Class.Day(a.Now())
	player, ladders, err := a.Store.Standing(ctx, player)
	if err != nil {
		return nil, err
	}
	out := Practice{
		PlayerID:   player.ID,
		Player:     player.ShortName(),
		Instrument: i.Name,
		Day:        day.Format(time.DateOnly),
		Comments:   []CommentView{},
		StandIns:   synth.StandIns(),
		Blowers:    meter.StandIns(),
		Setting:    intake.Setting(player, day),
		Tips:       player.Class.Tips,
	}
	if out.Steps, err = a.practiceSteps(ctx, player, day); err != nil {
		return nil, err
	}
	for n := range out.Steps {
		s := &out.Steps[n]
		s.addStanding(player, i, ladders, day)
		if s.Recent, err = a.Store.LatestTips(ctx, player.ID, s.ID, verdict.AskAfter); err != nil {
			return nil, err
		}
	}
	if err := a.addDoings(ctx, out.Steps, player, day); err != nil {
		return nil, err
	}
	comments, err := a.Store.CommentsForPlayer(ctx, player.ID, a.Now().AddDate(0, 0, -commentDays), mostComments)
	if err != nil {
		return nil, err
	}
	for _, c := range comments {
		out.Comments = append(out.Comments, commentView(c))
	}
	return &practiceOutput{out}, nil
}

// practiceSteps works a day's steps out for a player; those that are not for the
// instrument are left out.
func (a *API) practiceSteps(ctx context.Context, player store.Player, day time.Time) ([]PracticeStep, error) {
	steps, err := a.Store.StepsOn(ctx, player.ClassID, day, plan.AtHome)
	if err != nil {
		return nil, err
	}
	excused, err := a.Store.ExceptionsOn(ctx, player.ClassID, day)
	if err != nil {
		return nil, err
	}
	out := []PracticeStep{}
	for _, step := range steps {
		if store.Excused(excused, player.ID, step.ID) {
			continue
		}
		one, err := practiceStep(step, player, day)
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

func practiceStep(step store.Step, player store.Player, day time.Time) (PracticeStep, error) {
	worked, err := intake.Work(step, player, day, 0)
	if err != nil {
		return PracticeStep{}, err
	}
	x, err := step.Exercise()
	if err != nil {
		return PracticeStep{}, err
	}
	why := step.Why
	if why == "" {
		why = x.Kind.Why
	}
	return PracticeStep{
		Worked:   worked,
		ID:       step.ID,
		Version:  step.Version,
		Name:     x.Kind.Name,
		Sentence: x.Sentence(),
		Why:      why,
		Times:    step.Times,
		Step:     practice.Asked(x),
		Takes:    []PracticeTake{},
		Ticked:   make([]bool, len(worked.Score.Items)),
		Recent:   []string{},
	}, nil
}

// addDoings adds what a player did today to the steps.
func (a *API) addDoings(ctx context.Context, steps []PracticeStep, player store.Player, day time.Time) error {
	takes, err := a.Store.TakesOfPlayerOn(ctx, player.ID, day)
	if err != nil {
		return err
	}
	ids := make([]string, len(takes))
	for n, t := range takes {
		ids[n] = t.ID
	}
	small, err := a.Store.SmallAnalyses(ctx, ids)
	if err != nil {
		return err
	}
	ticks, err := a.Store.TicksOfPlayer(ctx, player.ID, day)
	if err != nil {
		return err
	}
	for n := range steps {
		s := &steps[n]
		for _, t := range takes {
			if t.StepID == s.ID {
				s.addTake(t, small)
			}
		}
		for _, t := range ticks {
			if t.StepID == s.ID && len(t.Done) == len(s.Ticked) {
				s.Ticked, s.Result = t.Done, t.Result
			}
		}
	}
	return nil
}

func (s *PracticeStep) addTake(t store.Take, small map[string]store.Analysis) {
	view := PracticeTake{ID: t.ID, Played: t.PlayedAt.UTC().Format(time.RFC3339)}
	found, analysed := small[t.ID]
	view.State = state(t.Failure, analysed)
	if analysed {
		view.Result, view.Ribbon = found.Result, &found.Ribbon
		s.Result = verdict.Better(s.Result, view.Result)
	}
	s.Takes = append(s.Takes, view)
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

type weekOutput struct{ Body PracticeWeek }

// daysAhead is how far a device looks ahead: over a weekend and a week.
const daysAhead = 8

func (a *API) showWeekAhead(ctx context.Context, _ *struct{}) (*weekOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	player, ladders, err := a.Store.Standing(ctx, player)
	if err != nil {
		return nil, err
	}
	i, err := instrument.Get(player.Instrument)
	if err != nil {
		return nil, err
	}
	out := &weekOutput{PracticeWeek{[]PracticeDay{}}}
	today := player.Class.Day(a.Now())
	for ahead := 1; ahead <= daysAhead; ahead++ {
		day := today.AddDate(0, 0, ahead)
		steps, err := a.practiceSteps(ctx, player, day)
		if err != nil {
			return nil, err
		}
		for n := range steps {
			steps[n].addStanding(player, i, ladders, day)
		}
		out.Body.Days = append(out.Body.Days, PracticeDay{day.Format(time.DateOnly), steps})
	}
	return out, nil
}

type keyOutput struct {
	Body struct {
		Key []byte `json:"key" doc:"under which this player's devices keep takes until they are safe here"`
	}
}

func (a *API) showKeepKey(ctx context.Context, _ *struct{}) (*keyOutput, error) {
	key, err := a.Store.KeepKey(ctx, a.who(ctx).Subject)
	if err != nil {
		return nil, err
	}
	out := &keyOutput{}
	out.Body.Key = key
	return out, nil
}

type tickInput struct {
	Step string `path:"step" format:"uuid"`
	Body struct {
		Version int    `json:"version" doc:"of the step, as it was shown"`
		Done    []bool `json:"done" nullable:"false" doc:"a truth for each item of the step"`
		AgoMS   int    `json:"ago_ms,omitempty" minimum:"0" doc:"how long ago it was ticked, on a device without a network"`
	}
}

// tickStep keeps what a player ticked, and answers with the whole practice.
func (a *API) tickStep(ctx context.Context, in *tickInput) (*practiceOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	step, err := a.Store.StepAsOf(ctx, player.ClassID, in.Step, in.Body.Version)
	if err != nil {
		return nil, err
	}
	at := ago(a.Now(), in.Body.AgoMS)
	score, i, err := intake.Score(step, player, player.Class.Day(at))
	if err != nil {
		return nil, err
	}
	if !score.Ticked || len(in.Body.Done) != len(score.Items) {
		return nil, problem.Input("done", fmt.Sprintf("this step has %d items to tick", len(score.Items)))
	}
	word, err := verdict.Decide(verdict.Case{Case: measure.Case{Instrument: i, Score: score, Ticked: in.Body.Done}})
	if err != nil {
		return nil, err
	}
	err = a.Store.SaveTick(ctx, store.Tick{
		PlayerID:    player.ID,
		StepID:      step.ID,
		StepVersion: step.Version,
		Day:         player.Class.Day(at),
		Done:        in.Body.Done,
		Result:      word.Result,
		Short:       word.Short,
		TickedAt:    at.UTC(),
	})
	if err != nil {
		return nil, err
	}
	return a.showPractice(ctx, nil)
}

const simulatedRate = 48000

type simulateInput struct {
	TakePath
	Body struct {
		StandIn string `json:"stand_in" enum:"steady,wavering,flat,gap,crack"`
		Step    string `json:"step" format:"uuid"`
		Version int    `json:"version"`
	}
}

type simulateOutput struct {
	Status int
	Body   struct {
		ID string `json:"id"`
	}
}

// simulateTake lets a simulated player make the take, through the same door.
func (a *API) simulateTake(ctx context.Context, in *simulateInput) (*simulateOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	step, err := a.Store.StepAsOf(ctx, player.ClassID, in.Body.Step, in.Body.Version)
	if err != nil {
		return nil, err
	}
	if player, _, err = a.Store.Standing(ctx, player); err != nil {
		return nil, err
	}
	score, i, err := intake.Score(step, player, player.Class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	standIn, ok := synth.NewStandIn(in.Body.StandIn, i, synth.FirstNote(score, i), seedOf(in.Take))
	if !ok {
		return nil, problem.Of(problem.Unusable, "There is no such simulated player.", nil)
	}
	sound, _ := standIn.Play(score, simulatedRate)
	hand := intake.Hand{
		ID:          in.Take,
		Player:      player,
		StepID:      step.ID,
		StepVersion: step.Version,
		Source:      store.Simulated,
		At:          a.Now(),
	}
	if _, err := a.Intake.Sound(ctx, hand, sound); err != nil {
		return nil, err
	}
	out := &simulateOutput{Status: http.StatusCreated}
	out.Body.ID = in.Take
	return out, nil
}

// seedOf makes each simulated take a little different, and the same take the same.
func seedOf(takeID string) uint64 {
	h := fnv.New64a()
	_, _ = h.Write([]byte(takeID)) // a hash does not fail
	return h.Sum64()
}
