package api

import (
	"context"
	"fmt"
	"hash/fnv"
	"net/http"

	"earlychorus/core/measure"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/practicepage"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

type practiceOutput struct{ Body practicepage.Practice }

func (a *API) showPractice(ctx context.Context, _ *struct{}) (*practiceOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	page, err := practicepage.Of(ctx, a.Store, player, a.Now())
	if err != nil {
		return nil, err
	}
	return &practiceOutput{page}, nil
}

type weekOutput struct{ Body practicepage.PracticeWeek }

func (a *API) showWeekAhead(ctx context.Context, _ *struct{}) (*weekOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	week, err := practicepage.WeekAhead(ctx, a.Store, player, a.Now())
	if err != nil {
		return nil, err
	}
	return &weekOutput{week}, nil
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
	now, err := a.Store.Standing(ctx, player)
	if err != nil {
		return nil, err
	}
	score, i, err := intake.Score(step, now, player.Class.Day(at))
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
	now, err := a.Store.Standing(ctx, player)
	if err != nil {
		return nil, err
	}
	score, i, err := intake.Score(step, now, player.Class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	standIn, ok := synth.NewStandIn(in.Body.StandIn, i, synth.FirstNote(score, i), seedOf(in.Take))
	if !ok {
		return nil, problem.Of(problem.Unusable, "There is no such simulated player.", nil)
	}
	sound, _ := standIn.Play(score, simulatedRate)
	upload := intake.Upload{
		ID:          in.Take,
		Player:      player,
		StepID:      step.ID,
		StepVersion: step.Version,
		Source:      store.Simulated,
		At:          a.Now(),
	}
	if _, err := a.Intake.Sound(ctx, upload, sound); err != nil {
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
