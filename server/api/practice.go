package api

import (
	"context"
	"hash/fnv"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
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
	Step       *PracticeStep   `json:"step,omitempty" doc:"absent on a day without a plan"`
	Takes      []PracticeTake  `json:"takes" nullable:"false" doc:"today's, newest first"`
	Comments   []CommentView   `json:"comments" nullable:"false" doc:"the director's latest"`
	StandIns   []synth.StandIn `json:"stand_ins" nullable:"false" doc:"simulated players that can stand in for the microphone"`
}

// PracticeStep is a step worked out for the player's own instrument.
type PracticeStep struct {
	ID       string            `json:"id"`
	Version  int               `json:"version"`
	Sentence string            `json:"sentence"`
	Why      string            `json:"why"`
	Score    exercise.Score    `json:"score"`
	Timeline exercise.Timeline `json:"timeline"`
	Ear      EarRange          `json:"ear" doc:"between which pitches to listen, live"`
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
		Player: player.ShortName(), Instrument: i.Name, Day: day.Format(time.DateOnly), Takes: []PracticeTake{}, Comments: []CommentView{},
		StandIns: synth.StandIns(),
	}
	if out.Step, err = a.practiceStep(ctx, player, day); err != nil {
		return nil, problem(err)
	}
	if out.Takes, err = a.practiceTakes(ctx, player, day); err != nil {
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

func (a *API) practiceStep(ctx context.Context, player store.Player, day time.Time) (*PracticeStep, error) {
	steps, err := a.Store.StepsOn(ctx, player.ClassID, day)
	if err != nil || len(steps) == 0 {
		return nil, err
	}
	step := steps[0]
	x, err := step.Exercise()
	if err != nil {
		return nil, err
	}
	score, i, err := intake.Score(step, player)
	if err != nil {
		return nil, err
	}
	ear := take.EarForScore(i, score)
	return &PracticeStep{
		ID: step.ID, Version: step.Version, Sentence: x.Sentence(), Why: x.Kind.Why, Score: score, Timeline: score.Timeline(),
		Ear: EarRange{ear.Lowest, ear.Highest},
	}, nil
}

func (a *API) practiceTakes(ctx context.Context, player store.Player, day time.Time) ([]PracticeTake, error) {
	takes, err := a.Store.TakesOfPlayerOn(ctx, player.ID, day)
	if err != nil {
		return nil, err
	}
	ids := make([]string, len(takes))
	for n, t := range takes {
		ids[n] = t.ID
	}
	small, err := a.Store.SmallAnalyses(ctx, ids)
	if err != nil {
		return nil, err
	}
	out := []PracticeTake{}
	for _, t := range takes {
		view := PracticeTake{ID: t.ID}
		found, analysed := small[t.ID]
		view.State = state(t.Failure, analysed)
		if analysed {
			view.Result, view.Ribbon = found.Result, &found.Ribbon
		}
		out = append(out, view)
	}
	return out, nil
}

const (
	simulatedRate = 48000
	referenceRate = 24000
)

// playReference answers the step's notes as they should sound.
func (a *API) playReference(w http.ResponseWriter, r *http.Request) {
	player, err := a.Store.Player(r.Context(), a.who(r.Context()).PlayerID)
	if err != nil {
		fail(w, err)
		return
	}
	step, err := a.practiceStep(r.Context(), player, player.Class.Day(a.Now()))
	if err == nil && step == nil {
		err = store.ErrNotFound
	}
	if err != nil {
		fail(w, err)
		return
	}
	i, err := instrument.Get(player.Instrument)
	if err != nil {
		fail(w, err)
		return
	}
	serveWAV(w, r, synth.Reference(step.Score, i, referenceRate), time.Time{})
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
	score, i, err := intake.Score(step, player)
	if err != nil {
		return nil, problem(err)
	}
	standIn, ok := synth.NewStandIn(in.Body.StandIn, i, score.Targets()[0].Target, seedOf(in.Take))
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
