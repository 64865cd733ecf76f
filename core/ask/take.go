package ask

import (
	"context"

	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/outcome"
	"earlychorus/core/ribbon"
	"earlychorus/core/say"
	"earlychorus/core/verdict"
)

// JudgeRequest is a take in the buffer.
type JudgeRequest struct {
	outcome.Request
	Rate   int                 `json:"rate" doc:"of the sound in the buffer, Hz"`
	Air    exercise.AirPicture `json:"air" doc:"the class's school of words for air"`
	Naming music.Naming        `json:"naming" doc:"how the class calls notes"`
	Best   verdict.Result      `json:"best,omitempty" enum:"clean,nearly,not-yet,cant-tell" doc:"the best of today before it"`
}

// Heard is what the page shows of a take: no more than it draws.
type Heard struct {
	Verdict   say.Said       `json:"verdict"`
	Best      verdict.Result `json:"best" enum:"clean,nearly,not-yet,cant-tell" doc:"the best of today with it"`
	Ribbon    ribbon.Ribbon  `json:"ribbon"`
	Small     ribbon.Ribbon  `json:"small"`
	Tuning    string         `json:"tuning,omitempty"`
	Recording ear.Recording  `json:"recording"`
	Longest   music.Seconds  `json:"longest_s" doc:"in a step that grows; otherwise 0"`
}

const (
	wide  = 600 // points across a phone
	small = 96
)

func judge(in JudgeRequest, sound *Sound) (Heard, error) {
	result, err := outcome.Of(context.Background(), audio.Mono{Rate: in.Rate, Samples: sound.In}, in.Request)
	if err != nil {
		return Heard{}, err
	}
	i, err := instrument.Get(in.Score.Instrument)
	if err != nil {
		return Heard{}, err
	}
	teller := say.Teller{
		Instrument: i,
		Naming:     in.Naming,
		Air:        in.Air,
		Tips:       in.Tips,
		Hands:      instrument.UsualHands(),
	}
	out := Heard{
		Verdict:   teller.ToPlayer(in.Score, result.Verdict).Verdict(result.Verdict),
		Best:      verdict.Better(result.Verdict.Result, in.Best),
		Tuning:    result.Tuning,
		Recording: result.Analysis.Recording,
		Longest:   result.Longest(in.Score),
	}
	if out.Ribbon, err = result.Draw(in.Score, wide); err != nil {
		return Heard{}, err
	}
	out.Small, err = result.Draw(in.Score, small)
	return out, err
}

// CheckRequest is a few seconds of quiet, a note, and quiet in the buffer.
type CheckRequest struct {
	Rate int `json:"rate" doc:"of the sound in the buffer, Hz"`
}

func check(in CheckRequest, sound *Sound) (ear.MicrophoneCheck, error) {
	return ear.CheckMicrophone(context.Background(), audio.Mono{Rate: in.Rate, Samples: sound.In})
}
