package ask

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// Sounded says how much sound answers.
type Sounded struct {
	Samples int `json:"samples" doc:"in the buffer"`
}

// PerformRequest is a score for a simulated player.
type PerformRequest struct {
	Score   scores.Score `json:"score"`
	StandIn string       `json:"stand_in" doc:"key of the simulated player"`
	Seed    uint64       `json:"seed" doc:"the same seed sounds the same"`
	Rate    int          `json:"rate" doc:"Hz"`
}

func perform(in PerformRequest, sound *Sound) (Sounded, error) {
	i, err := instrument.Get(in.Score.Instrument)
	if err != nil {
		return Sounded{}, err
	}
	p, ok := synth.Perform(in.StandIn, in.Score, i, in.Seed)
	if !ok {
		return Sounded{}, fmt.Errorf("there is no simulated player %q", in.StandIn)
	}
	sound.Out, _ = p.Play(in.Rate)
	return Sounded{len(sound.Out.Samples)}, nil
}

// ReferenceRequest is a score to be sounded as it should be.
type ReferenceRequest struct {
	Score scores.Score `json:"score"`
	Rate  int          `json:"rate" doc:"Hz"`
}

func reference(in ReferenceRequest, sound *Sound) (Sounded, error) {
	i, err := instrument.Get(in.Score.Instrument)
	if err != nil {
		return Sounded{}, err
	}
	sound.Out = synth.Reference(in.Score, i, in.Rate)
	return Sounded{len(sound.Out.Samples)}, nil
}
