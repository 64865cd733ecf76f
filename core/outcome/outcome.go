// Package outcome is all that is made of one take: measured, judged, drawn. The
// server's workers and the browser's ear both come through here, so that they
// can differ in nothing but what they were given to hear.
package outcome

import (
	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/ribbon"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// Request is a take and what has to be known to judge it.
type Request struct {
	Score      scores.Score  `json:"score"`
	Start      music.Seconds `json:"start_s"`     // where the score's first click lies in the sound
	FreeStart  bool          `json:"free_start"`  // the recording was not made to our click
	RecentTips []string      `json:"recent_tips"` // keys, latest first
	Tips       verdict.Book  `json:"tips"`        // the class's own words
}

// Outcome is what came of a take.
type Outcome struct {
	Analysis ear.Analysis    `json:"analysis"`
	Verdict  verdict.Verdict `json:"verdict"`
	Tuning   string          `json:"tuning,omitempty" doc:"of a tuning note: what to move, and how far"`
}

// FailedError reports a take that the ear came to grief over: a fault of the program,
// recorded with the take, and never the end of the ear.
type FailedError struct{ Cause any }

func (e FailedError) Error() string { return fmt.Sprintf("outcome: the ear failed: %v", e.Cause) }

// Of listens to a take and judges it. Errors: those of Open and OfTake.
func Of(asker audio.Asker, sound audio.Mono, r Request) (Outcome, error) {
	t, err := Open(r, sound.Rate)
	if err != nil {
		return Outcome{}, err
	}
	return OfTake(asker, t, sound.Samples, r)
}

// Open begins to listen to a take that comes in block by block. Errors: an unknown
// instrument, contour.ErrRate.
func Open(r Request, rate int) (*ear.Take, error) {
	i, err := instrument.Get(r.Score.Instrument)
	if err != nil {
		return nil, err
	}
	return ear.Open(ear.Question{Instrument: &i, Score: &r.Score, Alignment: r.alignment()}, rate)
}

func (r Request) alignment() ear.Alignment {
	return ear.Alignment{FirstNote: r.FreeStart, Start: r.Start}
}

// OfTake hears the last of a take that was opened with the same score, and judges it.
// Errors: an unknown instrument, asker's, measure.UnknownError for a rule of a newer version,
// or FailedError.
func OfTake(asker audio.Asker, t *ear.Take, last []float64, r Request) (out Outcome, err error) {
	defer func() {
		if cause := recover(); cause != nil {
			out, err = Outcome{}, FailedError{cause}
		}
	}()
	t.Hear(last)
	return ofTake(asker, t, r)
}

func ofTake(asker audio.Asker, t *ear.Take, r Request) (Outcome, error) {
	i, err := instrument.Get(r.Score.Instrument)
	if err != nil {
		return Outcome{}, err
	}
	measured, err := t.Finish(asker, r.alignment())
	if err != nil {
		return Outcome{}, err
	}
	word, err := verdict.Decide(verdict.Case{
		Case: measure.Case{
			Instrument: i,
			Score:      r.Score,
			Analysis:   measured,
			FreeStart:  r.FreeStart,
		},
		RecentTips: r.RecentTips,
		Tips:       r.Tips,
	})
	if err != nil {
		return Outcome{}, err
	}
	return Outcome{Analysis: measured, Verdict: word, Tuning: Tuning(measured, r.Score, i)}, nil
}

// Tuning says what to move, and how far, after a tuning note that could be
// trusted; otherwise it is empty.
func Tuning(a ear.Analysis, s scores.Score, i instrument.Instrument) string {
	if s.Kind != exercise.KindTuningNote || len(a.Notes) == 0 {
		return ""
	}
	n := a.Notes[0]
	if !n.Trusted || n.WrongNote {
		return ""
	}
	return i.TuningAdvice(n.Target, n.Centre, s.A4Hz)
}

// Draw returns the take's ribbon with about so many points across.
func (o Outcome) Draw(s scores.Score, points int) (ribbon.Ribbon, error) {
	drawn, err := o.DrawAt(s, points)
	if err != nil {
		return ribbon.Ribbon{}, err
	}
	return drawn[0], nil
}

// DrawAt returns it at several sizes. Errors: an unknown instrument.
func (o Outcome) DrawAt(s scores.Score, points ...int) ([]ribbon.Ribbon, error) {
	i, err := instrument.Get(s.Instrument)
	if err != nil {
		return nil, err
	}
	return ribbon.DrawAt(o.Analysis, s, i, points...), nil
}

// Longest returns the longest note that sounded, for a step of longest notes
// that came out; otherwise 0.
func (o Outcome) Longest(s scores.Score) (longest music.Seconds) {
	if !s.Growing || o.Verdict.Result != verdict.Clean && o.Verdict.Result != verdict.Nearly {
		return 0
	}
	for _, n := range o.Analysis.Notes {
		longest = max(longest, n.Sounding)
	}
	return longest
}
