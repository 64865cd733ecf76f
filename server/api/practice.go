package api

import (
	"context"
	"errors"
	"fmt"
	"hash/fnv"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/meter"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/ribbon"
	"earlychorus/core/synth"
	"earlychorus/core/take"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/store"
)

// Practice is what a player has to do today, and how it has gone so far.
type Practice struct {
	Player     string          `json:"player"`
	Instrument string          `json:"instrument"`
	Day        string          `json:"day" format:"date"`
	Steps      []PracticeStep  `json:"steps" nullable:"false" doc:"today's, in order; none on a day without a plan"`
	Comments   []CommentView   `json:"comments" nullable:"false" doc:"the director's latest"`
	StandIns   []synth.StandIn `json:"stand_ins" nullable:"false" doc:"simulated players that can stand in for the microphone"`
	Blowers    []meter.Choice  `json:"blowers" nullable:"false" doc:"simulated players at a simulated air meter"`
}

// PracticeStep is a step worked out for the player's own instrument.
type PracticeStep struct {
	ID       string            `json:"id"`
	Version  int               `json:"version"`
	Name     string            `json:"name" doc:"the kind's"`
	Sentence string            `json:"sentence"`
	Why      string            `json:"why"`
	Times    int               `json:"times"`
	Score    exercise.Score    `json:"score"`
	Timeline exercise.Timeline `json:"timeline"`
	Ear      EarRange          `json:"ear" doc:"between which pitches to listen, live"`
	Takes    []PracticeTake    `json:"takes" nullable:"false" doc:"today's of this step, newest first"`
	Ticked   []bool            `json:"ticked" nullable:"false" doc:"which items of a ticked step are done today"`
	Ladder   *LadderView       `json:"ladder,omitempty" doc:"of a step that is a rung"`
	Best     float64           `json:"best_s,omitempty" doc:"the player's longest hold so far, where it matters"`
	Result   verdict.Result    `json:"result,omitempty" enum:"clean,nearly,not-yet,cant-tell" doc:"the best of today, once there is one"`
}

// EarRange is between which pitches an ear listens.
type EarRange struct {
	Lowest  music.Hertz `json:"lowest_hz"`
	Highest music.Hertz `json:"highest_hz"`
}

// PracticeTake is one of today's takes, small.
type PracticeTake struct {
	ID     string         `json:"id"`
	State  string         `json:"state" enum:"waiting,done,failed"`
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
	player, err := a.Store.Player(ctx, a.who(ctx).PlayerID)
	if err != nil {
		return nil, problem(err)
	}
	i, err := instrument.Get(player.Instrument)
	if err != nil {
		return nil, problem(err)
	}
	day := player.Class.Day(a.Now())
	out := Practice{
		Player: player.ShortName(), Instrument: i.Name, Day: day.Format(time.DateOnly), Comments: []CommentView{}, StandIns: synth.StandIns(), Blowers: meter.StandIns(),
	}
	player, ladders, err := a.Store.Standing(ctx, player)
	if err != nil {
		return nil, problem(err)
	}
	if out.Steps, err = a.practiceSteps(ctx, player, day); err != nil {
		return nil, problem(err)
	}
	for n := range out.Steps {
		out.Steps[n].addStanding(player, i, ladders, day)
	}
	if err := a.addDoings(ctx, out.Steps, player, day); err != nil {
		return nil, problem(err)
	}
	comments, err := a.Store.CommentsForPlayer(ctx, player.ID, a.Now().AddDate(0, 0, -commentDays), mostComments)
	if err != nil {
		return nil, problem(err)
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
	score, i, err := intake.Score(step, player, day)
	if err != nil {
		return PracticeStep{}, err
	}
	x, err := step.Exercise()
	if err != nil {
		return PracticeStep{}, err
	}
	ear := take.EarForScore(i, score)
	why := step.Why
	if why == "" {
		why = x.Kind.Why
	}
	return PracticeStep{
		ID: step.ID, Version: step.Version, Name: x.Kind.Name, Sentence: x.Sentence(), Why: why, Times: step.Times, Score: score,
		Timeline: score.Timeline(), Ear: EarRange{ear.Lowest, ear.Highest}, Takes: []PracticeTake{}, Ticked: make([]bool, len(score.Items)),
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
	view := PracticeTake{ID: t.ID}
	found, analysed := small[t.ID]
	view.State = state(t.Failure, analysed)
	if analysed {
		view.Result, view.Ribbon = found.Result, &found.Ribbon
		if s.Result == "" || better(view.Result, s.Result) {
			s.Result = view.Result
		}
	}
	s.Takes = append(s.Takes, view)
}

// better reports whether one result is nearer to clean than another.
func better(a, b verdict.Result) bool {
	order := []verdict.Result{verdict.Clean, verdict.Nearly, verdict.NotYet, verdict.CantTell}
	return slices.Index(order, a) < slices.Index(order, b)
}

type tickInput struct {
	Step string `path:"step" format:"uuid"`
	Body struct {
		Version int    `json:"version" doc:"of the step, as it was shown"`
		Done    []bool `json:"done" nullable:"false" doc:"a truth for each item of the step"`
	}
}

// tickStep keeps what a player ticked, and answers with the whole practice.
func (a *API) tickStep(ctx context.Context, in *tickInput) (*practiceOutput, error) {
	player, err := a.Store.Player(ctx, a.who(ctx).PlayerID)
	if err != nil {
		return nil, problem(err)
	}
	step, err := a.Store.StepAsOf(ctx, player.ClassID, in.Step, in.Body.Version)
	if err != nil {
		return nil, problem(err)
	}
	score, i, err := intake.Score(step, player, player.Class.Day(a.Now()))
	if err != nil {
		return nil, problem(err)
	}
	if !score.Ticked || len(in.Body.Done) != len(score.Items) {
		return nil, problem(exercise.ParameterError{Field: "done", Remedy: fmt.Sprintf("this step has %d items to tick", len(score.Items))})
	}
	word := verdict.Decide(verdict.Case{Instrument: i, Score: score, Ticked: in.Body.Done})
	err = a.Store.SaveTick(ctx, store.Tick{
		PlayerID: player.ID, StepID: step.ID, StepVersion: step.Version, Day: player.Class.Day(a.Now()), Done: in.Body.Done, Result: word.Result,
		Short: word.Short, TickedAt: a.Now().UTC(),
	})
	if err != nil {
		return nil, problem(err)
	}
	return a.showPractice(ctx, nil)
}

const (
	simulatedRate = 48000
	referenceRate = 24000
)

// playReference answers a step's notes as they should sound.
func (a *API) playReference(w http.ResponseWriter, r *http.Request) {
	player, err := a.Store.Player(r.Context(), a.who(r.Context()).PlayerID)
	if err != nil {
		fail(w, err)
		return
	}
	version, err := strconv.Atoi(r.URL.Query().Get("version"))
	if err != nil || !isUUID(chi.URLParam(r, "step")) {
		fail(w, store.ErrNotFound)
		return
	}
	step, err := a.Store.StepAsOf(r.Context(), player.ClassID, chi.URLParam(r, "step"), version)
	if err != nil {
		fail(w, err)
		return
	}
	if player, _, err = a.Store.Standing(r.Context(), player); err != nil {
		fail(w, err)
		return
	}
	score, i, err := intake.Score(step, player, player.Class.Day(a.Now()))
	if err != nil {
		fail(w, err)
		return
	}
	serveWAV(w, r, synth.Reference(score, i, referenceRate), time.Time{})
}

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
	player, err := a.Store.Player(ctx, a.who(ctx).PlayerID)
	if err != nil {
		return nil, problem(err)
	}
	step, err := a.Store.StepAsOf(ctx, player.ClassID, in.Body.Step, in.Body.Version)
	if err != nil {
		return nil, problem(err)
	}
	if player, _, err = a.Store.Standing(ctx, player); err != nil {
		return nil, problem(err)
	}
	score, i, err := intake.Score(step, player, player.Class.Day(a.Now()))
	if err != nil {
		return nil, problem(err)
	}
	first := i.Home()
	if targets := score.Targets(); len(targets) > 0 {
		first = targets[0].Target
	}
	standIn, ok := synth.NewStandIn(in.Body.StandIn, i, first, seedOf(in.Take))
	if !ok {
		return nil, huma.Error422UnprocessableEntity("There is no such simulated player.")
	}
	sound, _ := standIn.Play(score, simulatedRate)
	hand := intake.Hand{ID: in.Take, Player: player, StepID: step.ID, StepVersion: step.Version, Source: store.Simulated, At: a.Now()}
	if _, err := a.Intake.Sound(ctx, hand, sound); err != nil {
		return nil, problem(err)
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
