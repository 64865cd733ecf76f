package ask

import (
	"errors"

	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/outcome"
	"earlychorus/core/ribbon"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// TakeRequest is a take that begins.
type TakeRequest struct {
	Score scores.Score  `json:"score"`
	Start music.Seconds `json:"start_s" doc:"where the score's first click will lie in the sound, as far as is known"`
	Rate  int           `json:"rate" doc:"of the sound that comes in, Hz"`
}

// afterScore is about how long a page records behind the last beat.
const afterScore music.Seconds = 1

// Opened says that a take is listened to.
type Opened struct{}

func take(in TakeRequest, sound *Sound) (Opened, error) {
	t, err := outcome.Open(outcome.Request{Score: in.Score, Start: in.Start}, in.Rate)
	if err != nil {
		return Opened{}, err
	}
	t.Expect(in.Start + in.Score.Seconds() + afterScore)
	sound.Take = t
	return Opened{}, nil
}

// JudgeRequest is a take that came in, or one in the buffer. A take that came in has its score
// already: what is said of it here is not read.
type JudgeRequest struct {
	outcome.Request
	Taken  bool                `json:"taken,omitempty" doc:"it is the take that came in block by block"`
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
	wide  = 400 // points across a phone: one a pixel
	small = 96
)

func judge(in JudgeRequest, sound *Sound) (Heard, error) {
	if in.Taken && sound.Take != nil {
		in.Score = *sound.Take.Score()
	}
	result, err := heard(in, sound)
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
	drawn, err := result.DrawAt(in.Score, wide, small)
	if err != nil {
		return Heard{}, err
	}
	out.Ribbon, out.Small = drawn[0], drawn[1]
	return out, nil
}

// heard listens to the end of the take that came in, or to the whole one in the buffer.
func heard(in JudgeRequest, sound *Sound) (outcome.Outcome, error) {
	if !in.Taken {
		return outcome.Of(audio.Patient{}, audio.Mono{Rate: in.Rate, Samples: sound.In}, in.Request)
	}
	t := sound.Take
	sound.Take = nil
	if t == nil {
		return outcome.Outcome{}, errNoTake
	}
	return outcome.OfTake(audio.Patient{}, t, nil, in.Request)
}

var errNoTake = errors.New("no take came in: it has to be sent whole")

// CheckRequest is a few seconds of quiet, a note, and quiet in the buffer.
type CheckRequest struct {
	Rate int `json:"rate" doc:"of the sound in the buffer, Hz"`
}

func check(in CheckRequest, sound *Sound) (ear.MicrophoneCheck, error) {
	return ear.CheckMicrophone(audio.Patient{}, audio.Mono{Rate: in.Rate, Samples: sound.In})
}
