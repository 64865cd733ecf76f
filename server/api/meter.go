package api

import (
	"context"
	"encoding/json"

	"earlychorus/core/measure"
	"earlychorus/core/meter"
	"earlychorus/core/say"
	"earlychorus/core/verdict"
	"earlychorus/server/intake"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// Blown is what a meter showed, and the word on it.
type Blown struct {
	Trace   meter.Trace  `json:"trace"`
	Blows   []meter.Blow `json:"blows" nullable:"false"`
	Verdict say.Said     `json:"verdict"`
}

// blowInput has a simulated player blow into a simulated air meter: the place where
// a real meter's trace would come in.
type blowInput struct {
	Step string `path:"step" format:"uuid"`
	Body struct {
		Version int    `json:"version" doc:"of the step, as it was shown"`
		StandIn string `json:"stand_in" enum:"prompt,late,dancing" doc:"a simulated player at a simulated meter"`
	}
}

// blowOutput is the trace with its verdict, worked out as for any other measure.
type blowOutput struct{ Body Blown }

// blowStep lets a simulated player blow into the simulated meter, and keeps the
// word.
func (a *API) blowStep(ctx context.Context, in *blowInput) (*blowOutput, error) {
	player, err := a.Store.Oneself(ctx, a.who(ctx))
	if err != nil {
		return nil, err
	}
	if player.Class.SimulatedPlayers != store.SimulatingDemo {
		return nil, problem.Of(problem.Unusable, "No meter is connected. Do this step with your director.", nil)
	}
	step, err := a.Store.StepAsOf(ctx, player.ClassID, in.Step, in.Body.Version)
	if err != nil {
		return nil, err
	}
	day := player.Class.Day(a.Now())
	now, err := a.Store.Standing(ctx, player)
	if err != nil {
		return nil, err
	}
	score, i, err := intake.Score(step, now, day)
	if err != nil {
		return nil, err
	}
	if !score.Metered {
		return nil, problem.Input("step", "this step is not blown into a meter")
	}
	// Another seed each time: a meter that always read the same would teach nothing.
	blower, ok := meter.NewStandIn(in.Body.StandIn, seedOf(player.ID+a.Now().String()))
	if !ok {
		return nil, problem.Of(problem.Unusable, "There is no such simulated player.", nil)
	}
	out := Blown{Trace: blower.Blow(score)}
	out.Blows = meter.Read(out.Trace, score)
	word, err := verdict.Decide(verdict.Case{
		Case: measure.Case{Instrument: i, Score: score, Blows: out.Blows},
		Tips: player.Class.Tips,
	})
	if err != nil {
		return nil, err
	}
	out.Verdict = say.For(i, player.Class.Conventions(), player.Class.Tips).Verdict(word)
	conclusion, err := json.Marshal(word.Brief())
	if err != nil {
		return nil, err
	}
	err = a.Store.SaveTick(ctx, store.Tick{
		PlayerID:    player.ID,
		StepID:      step.ID,
		StepVersion: step.Version,
		Day:         day,
		// Kept as a tick: there is no recording that could be listened to again.
		Done:       []bool{},
		Result:     word.Result,
		Conclusion: conclusion,
		TickedAt:   a.Now().UTC(),
	})
	if err != nil {
		return nil, err
	}
	return &blowOutput{out}, nil
}
