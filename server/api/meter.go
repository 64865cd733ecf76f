package api

import (
	"context"
	"encoding/json"

	"earlychorus/core/meter"
	"earlychorus/core/outcome"
	"earlychorus/core/say"
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

// blowInput tells what a simulated player blew into a simulated meter on the device: the
// same seed blows the same, so that the server reads it for itself.
type blowInput struct {
	Step string `path:"step" format:"uuid"`
	Body struct {
		Version int    `json:"version" doc:"of the step, as it was shown"`
		StandIn string `json:"stand_in" enum:"prompt,late,dancing" doc:"a simulated player at a simulated meter"`
		Seed    uint64 `json:"seed" doc:"what the device blew with"`
		AgoMS   int    `json:"ago_ms,omitempty" minimum:"0" doc:"how long ago it was blown, on a device without a network"`
	}
}

// blowOutput is the trace with its verdict, worked out as for any other measure.
type blowOutput struct{ Body Blown }

// blowStep reads what was blown into the simulated meter, and keeps the word.
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
	at := ago(a.Now(), in.Body.AgoMS)
	day := player.Class.Day(at)
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
	blower, ok := meter.NewStandIn(in.Body.StandIn, in.Body.Seed)
	if !ok {
		return nil, problem.Of(problem.Unusable, "There is no such simulated player.", nil)
	}
	came, err := outcome.OfBlowing(blower.Blow(score), score, player.Class.Tips)
	if err != nil {
		return nil, err
	}
	word := came.Verdict
	said := say.For(i, player.Class.Conventions(), player.Class.Tips).Verdict(word)
	out := Blown{Trace: came.Trace, Blows: came.Blows, Verdict: said}
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
		TickedAt:   at.UTC(),
	})
	if err != nil {
		return nil, err
	}
	return &blowOutput{out}, nil
}
