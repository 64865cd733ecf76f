package api

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"strconv"
	"time"

	"earlychorus/core/audio/wav"
	"earlychorus/core/bars"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/known"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// NotationAsked is a step to be shown for one instrument.
type NotationAsked struct {
	Kind       string         `json:"kind"`
	Parameters map[string]any `json:"parameters"`
	Instrument string         `json:"instrument"`
	Variant    string         `json:"variant"`
	Stage      scores.Stage   `json:"stage" minimum:"1" maximum:"4"`
	Monday     string         `json:"monday,omitempty" format:"date" doc:"of its week; left out: this one"`
}

// player is whom a step is drawn for. It is no player of the class: an instrument, a
// build and a stage, with the notes that the class knows on it.
func (n NotationAsked) player(class store.Class, day time.Time) (exercise.Player, error) {
	i, err := instrument.Get(n.Instrument)
	if err != nil {
		return exercise.Player{}, problem.Input("instrument", "choose an instrument of the table")
	}
	if i, err = i.As(n.Variant); err != nil {
		return exercise.Player{}, problem.Input("variant", err.Error())
	}
	who := exercise.Player{Instrument: i, Stage: n.Stage}
	who.Known, who.New = class.NotesOn(i, known.Own{}, day)
	return who, nil
}

// StepNotation is a step as one instrument reads it, ready to be drawn.
type StepNotation struct {
	Sentence string          `json:"sentence"`
	Score    scores.Score    `json:"score"`
	Bars     []bars.Bar      `json:"bars" nullable:"false"`
	Timeline scores.Timeline `json:"timeline"`
	Suits    bool            `json:"suits" doc:"false: the step is not for this instrument, and there is nothing to draw"`
}

// notationInput asks how one kind of player reads one step.
type notationInput struct {
	Class string `path:"class" format:"uuid"`
	Body  NotationAsked
}

// notationOutput is the score, its bars and its fingerings: everything the page
// engraves.
type notationOutput struct{ Body StepNotation }

// drawStep reads a step as a player of it would. That a step does not suit an
// instrument is an answer here and no error.
func (a *API) drawStep(ctx context.Context, in *notationInput) (*notationOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	who, err := in.Body.player(class, a.weekAsked(class, in.Body.Monday))
	if err != nil {
		return nil, err
	}
	// Through the same door as a plan's items: what is drawn is what would be saved.
	raw, err := json.Marshal(in.Body.Parameters)
	if err != nil {
		return nil, err
	}
	step, err := exercise.Parse(in.Body.Kind, raw)
	if err != nil {
		return nil, err
	}
	out := StepNotation{Sentence: step.Sentence(), Bars: []bars.Bar{}, Suits: step.AsksOf(who)}
	if !out.Suits {
		return &notationOutput{out}, nil
	}
	if out.Score, err = step.Score(who, class.Conventions()); err != nil {
		return nil, err
	}
	out.Bars, out.Timeline = bars.Of(out.Score), out.Score.Timeline()
	return &notationOutput{out}, nil
}

// soundRate is enough for a reference tone.
const soundRate = 24000

// soundStep answers how a step sounds on an instrument.
func (a *API) soundStep(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	q := r.URL.Query()
	stage, _ := strconv.Atoi(q.Get("stage")) // 0 is taken as the first
	who, err := NotationAsked{
		Instrument: q.Get("instrument"),
		Variant:    q.Get("variant"),
		Stage:      max(1, scores.Stage(stage)),
	}.player(class, a.weekAsked(class, q.Get("monday")))
	if err != nil {
		return err
	}
	step, err := exercise.Parse(q.Get("kind"), []byte(q.Get("parameters")))
	if err != nil {
		return err
	}
	score, err := step.Score(who, class.Conventions())
	if err != nil {
		return err
	}
	serveWAV(w, r, bytes.NewReader(wav.Encode(synth.Reference(score, who.Instrument, soundRate))), time.Time{})
	return nil
}
