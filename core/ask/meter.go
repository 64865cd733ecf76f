package ask

import (
	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/meter"
	"earlychorus/core/outcome"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// BlowRequest is a score for a simulated player at a simulated air meter: the place where
// a real meter's trace would come in.
type BlowRequest struct {
	Score       scores.Score         `json:"score"`
	StandIn     string               `json:"stand_in" doc:"key of the simulated player"`
	Seed        uint64               `json:"seed" doc:"the same seed blows the same"`
	Tips        verdict.Book         `json:"tips" doc:"the class's own words"`
	Conventions exercise.Conventions `json:"conventions"`
}

// Blown is what a meter showed, and the word on it.
type Blown struct {
	Trace   meter.Trace  `json:"trace"`
	Blows   []meter.Blow `json:"blows" nullable:"false"`
	Verdict say.Said     `json:"verdict"`
}

func blow(in BlowRequest, _ *Sound) (Blown, error) {
	i, err := instrument.Get(in.Score.Instrument)
	if err != nil {
		return Blown{}, err
	}
	blower, ok := meter.NewStandIn(in.StandIn, in.Seed)
	if !ok {
		return Blown{}, fmt.Errorf("there is no simulated player %q", in.StandIn)
	}
	came, err := outcome.OfBlowing(blower.Blow(in.Score), in.Score, in.Tips)
	if err != nil {
		return Blown{}, err
	}
	return Blown{came.Trace, came.Blows, say.For(i, in.Conventions, in.Tips).Verdict(came.Verdict)}, nil
}
