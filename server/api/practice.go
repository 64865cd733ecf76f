package api

import (
	"context"
	"encoding/json"
	"fmt"
	"hash/fnv"
	"net/http"

	"earlychorus/core/measure"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/growth"
	"earlychorus/server/intake"
	"earlychorus/server/practicepage"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// practiceOutput is a player's day: what is asked, how it reads on their instrument,
// and what was played of it.
type practiceOutput struct{ Body practicepage.Practice }

// showPractice is for players alone, and of themselves: there is no player in the
// address to guess.
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

// showMyGrowth shows a player how they have grown: their own, and nobody else's.
func (a *API) showMyGrowth(ctx context.Context, _ *struct{}) (*growthOutput, error) {
	p, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	page, err := growth.Of(ctx, a.Store, p.Class, p.ID, myWeeks, p.Class.Day(a.Now()))
	if err != nil {
		return nil, err
	}
	page.Class.Code = "" // what is on the screen is seen by others
	page.Player.Name = p.ShortName()
	return &growthOutput{page}, nil
}

// myWeeks is about a school term.
const myWeeks = 12

// weekOutput is the days to come, to be kept on the device for a home without a
// network.
type weekOutput struct{ Body practicepage.PracticeWeek }

// showWeekAhead reads each day as the player stands now. A rung that is passed
// meanwhile changes what comes, and the page asks again then.
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

// keyOutput is the key under which takes are sealed on a device, 32 bytes, in
// base64.
type keyOutput struct {
	Body struct {
		Key []byte `json:"key" doc:"under which this player's devices keep takes until they are safe here"`
	}
}

// showKeepKey gives a player's device the key to what it keeps. It stays in memory
// there: a laptop that goes from child to child holds takes that only their player
// can hear.
func (a *API) showKeepKey(ctx context.Context, _ *struct{}) (*keyOutput, error) {
	key, err := a.Store.KeepKey(ctx, a.who(ctx).Subject)
	if err != nil {
		return nil, err
	}
	out := &keyOutput{}
	out.Body.Key = key
	return out, nil
}

// tickInput says what of a step was done that nobody can hear: breathing,
// stretching, putting the instrument together.
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
	// The day it was done counts, not the day the network came back.
	at := ago(a.Now(), in.Body.AgoMS)
	now, err := a.Store.Standing(ctx, player)
	if err != nil {
		return nil, err
	}
	score, i, err := intake.Score(step, now, player.Class.Day(at))
	if err != nil {
		return nil, err
	}
	// As many truths as items of the version that was shown.
	if !score.Ticked || len(in.Body.Done) != len(score.Items) {
		return nil, problem.Input("done", fmt.Sprintf("this step has %d items to tick", len(score.Items)))
	}
	word, err := verdict.Decide(verdict.Case{Case: measure.Case{Instrument: i, Score: score, Ticked: in.Body.Done}})
	if err != nil {
		return nil, err
	}
	conclusion, err := json.Marshal(word.Brief())
	if err != nil {
		return nil, err
	}
	if err := a.careTicked(ctx, player, step, in.Body.Done, at); err != nil {
		return nil, err
	}
	err = a.Store.SaveTick(ctx, store.Tick{
		PlayerID:    player.ID,
		StepID:      step.ID,
		StepVersion: step.Version,
		Day:         player.Class.Day(at),
		Done:        in.Body.Done,
		Result:      word.Result,
		Conclusion:  conclusion,
		TickedAt:    at.UTC(),
	})
	if err != nil {
		return nil, err
	}
	return a.showPractice(ctx, nil)
}

// simulatedRate is samples a second, what browsers record at most often.
const simulatedRate = 48000

// simulateInput asks a simulated player for a take, by the step and version that
// were shown.
type simulateInput struct {
	TakePath
	Body struct {
		StandIn string `json:"stand_in" maxLength:"40" doc:"key of one of the practice page's stand-ins"`
		Step    string `json:"step" format:"uuid"`
		Version int    `json:"version"`
	}
}

// simulateOutput has the status by hand: 201 for a new take, 200 for one that is
// here already.
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
	// The same take number plays the same take: a test can send it twice.
	standIn, ok := synth.Perform(in.Body.StandIn, score, i, seedOf(in.Take))
	if !ok {
		return nil, problem.Of(problem.Unusable, "There is no such simulated player.", nil)
	}
	sound, _ := standIn.Play(simulatedRate)
	// From here on a simulated take goes the way of every other.
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
