// Package practice is what a player's device needs to go on without asking: a
// step worked out at the player's own tempo and rung, the ladder after a take,
// the rest before the next. The server answers from it, and so does the browser
// when there is no network.
package practice

import (
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/json"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/core/task"
)

// Setting is a player as a device knows one: everything scores are worked out
// from.
type Setting struct {
	Instrument  string               `json:"instrument"`
	Variant     string               `json:"variant,omitempty" doc:"how the instrument is built; empty is the usual way"`
	Stage       scores.Stage         `json:"stage" minimum:"1" maximum:"4"`
	Best        float64              `json:"best_s,omitempty" doc:"longest hold so far"`
	Rungs       map[string]int       `json:"rungs,omitempty" doc:"where the ladders stand, from 1"`
	Known       []music.MIDI         `json:"known,omitempty" doc:"sounding notes known so far; none means all the stage reaches"`
	New         []music.MIDI         `json:"new,omitempty" doc:"sounding notes that are new this week"`
	Repeat      int                  `json:"repeat,omitempty" doc:"how often the step was played today before, for fingers and starts that take turns"`
	Conventions exercise.Conventions `json:"conventions"`
}

// Player returns the player in the core's terms. Errors: an unknown instrument
// or variant.
func (s Setting) Player() (exercise.Player, error) {
	i, err := instrument.Get(s.Instrument)
	if err != nil {
		return exercise.Player{}, err
	}
	if i, err = i.As(s.Variant); err != nil {
		return exercise.Player{}, err
	}
	return exercise.Player{
		Instrument: i,
		Stage:      s.Stage,
		Best:       s.Best,
		Rungs:      s.Rungs,
		Known:      s.Known,
		New:        s.New,
		Repeat:     s.Repeat,
	}, nil
}

// AskedStep is a step as it was planned, before it is worked out.
type AskedStep struct {
	Kind       string          `json:"kind"`
	Parameters exercise.Values `json:"parameters"`
}

// Asked returns a step in a device's terms.
func Asked(s exercise.Step) AskedStep { return AskedStep{s.Kind.Key, s.Values} }

// Step returns the step in the core's terms. Errors: an unknown kind or parameter.
func (a AskedStep) Step() (exercise.Step, error) {
	raw, err := json.Marshal(a.Parameters)
	if err != nil {
		return exercise.Step{}, err
	}
	return exercise.Kept(a.Kind, raw)
}

// Worked is a step worked out for a player, ready to be shown, led and heard.
type Worked struct {
	Score    scores.Score    `json:"score"`
	Task     task.Task       `json:"task" doc:"the score told before it is played"`
	Timeline scores.Timeline `json:"timeline"`
	Ear      EarRange        `json:"ear" doc:"between which pitches to listen, live"`
	Tempi    *exercise.Tempi `json:"tempi,omitempty" doc:"between which the player may choose; absent where there is no choice"`
}

// EarRange is between which pitches an ear listens.
type EarRange struct {
	Lowest  music.Hertz `json:"lowest_hz"`
	Highest music.Hertz `json:"highest_hz"`
}

// Work works a step out for a player, at a tempo the director allows; 0 is the
// step's own. Errors: exercise.ErrNotFor; ParameterError for a tempo outside
// what is allowed; an unknown instrument.
func Work(s Setting, step exercise.Step, tempo music.Tempo) (Worked, error) {
	who, err := s.Player()
	if err != nil {
		return Worked{}, err
	}
	var out Worked
	if tempi, free := step.Tempi(s.Conventions.GiveFor(step)); free {
		out.Tempi = &tempi
	}
	if step, err = step.AtTempo(tempo, s.Conventions.GiveFor(step)); err != nil {
		return Worked{}, err
	}
	score, err := step.Score(who, s.Conventions)
	if err != nil {
		return Worked{}, err
	}
	out.Score = plan.FillRests(score)
	out.Task = task.Of(out.Score)
	out.Timeline = out.Score.Timeline()
	ear := ear.ForScore(who.Instrument, out.Score)
	out.Ear = EarRange{ear.Lowest, ear.Highest}
	return out, nil
}
