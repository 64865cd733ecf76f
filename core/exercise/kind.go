// Package exercise turns recipes written once in concert pitch into scores:
// the timed targets one instrument plays. Every kind is a pure function from
// parameters, instrument, conventions and stage to a score; a new kind is one
// file, one entry in the catalogue and one test.
package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/json"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Kind is a recipe: what it asks for, and how it is laid out for an instrument.
// A kind is one file, one entry in the catalogue, one line in its test.
type Kind struct {
	Key   string         `json:"key"`
	Name  string         `json:"name"`
	Why   string         `json:"why" doc:"what it is good for, in one line to a player"`
	Group scores.Chapter `json:"group" doc:"where the catalogue lists it"`
	Parts []Param        `json:"parameters" doc:"what a step of it sets" nullable:"false"`
	// Ticked kinds are done and ticked, not recorded.
	Ticked bool `json:"ticked,omitempty"`
	// Metered kinds read an air meter.
	Metered bool `json:"metered,omitempty"`
	// Unpitched kinds are for percussion, too.
	Unpitched bool `json:"-"`
	// Breath is the longest stretch of sound or air between two breaths that a
	// step may ask for, when it is not oneBreath.
	Breath music.Seconds `json:"-"`
	// Suits says which instruments it is for; nil is all of them.
	Suits func(instrument.Instrument) bool `json:"-"`
	// Says is the step in a director's words, behind the kind's name.
	Says func(v Values) string `json:"-"`
	// Lay writes the score.
	Lay func(w *writer, v Values) `json:"-"`
	// Check refuses what the ranges of the parameters alone do not.
	Check func(v Values) error `json:"-"`
}

// Step is a kind with its parameters, checked.
type Step struct {
	Kind   *Kind
	Values Values

	longest music.Seconds // stretch between two breaths on any instrument; 0 until it was asked
}

// Parse reads a step from its kind's key and parameters as JSON, and checks it:
// parameters left out take their defaults, and no instrument may be asked for more
// than one breath holds. For that it lays the step out for every instrument.
// Errors: UnknownKindError; ParameterError.
func Parse(kind string, parameters []byte) (Step, error) {
	s, err := read(kind, parameters, false)
	if err != nil {
		return Step{}, err
	}
	return s.checked()
}

// checked returns the step when every rule of its kind allows it.
func (s Step) checked() (Step, error) {
	if s.Kind.Check != nil {
		if err := s.Kind.Check(s.Values); err != nil {
			return Step{}, err
		}
	}
	s.longest = s.longestBreath()
	return s, s.checkBreath()
}

// Kept reads a step that was checked by Parse before it was kept. A parameter that it
// was kept without means what it meant then. Errors: as Parse.
func Kept(kind string, parameters []byte) (Step, error) { return read(kind, parameters, true) }

func read(kind string, parameters []byte, kept bool) (Step, error) {
	k, err := Get(kind)
	if err != nil {
		return Step{}, err
	}
	raw := map[string]json.RawMessage{}
	if len(parameters) > 0 {
		if err := json.Unmarshal(parameters, &raw); err != nil {
			return Step{}, ParameterError{"parameters", "send an object of parameters"}
		}
	}
	v, err := k.values(raw, kept)
	if err != nil {
		return Step{}, err
	}
	return Step{Kind: k, Values: v}, nil
}

// New returns a step of a kind with its defaults, but for those given. It panics
// on a kind or a parameter that is not there: for steps written in code.
func New(kind string, set map[string]any) Step {
	raw, err := json.Marshal(set)
	if err != nil {
		panic(err)
	}
	s, err := Parse(kind, raw)
	if err != nil {
		panic(fmt.Sprintf("exercise: %s: %v", kind, err))
	}
	return s
}

// Sentence says the step in concert pitch, as a director would.
func (s Step) Sentence() string {
	if said := s.Kind.Says(s.Values); said != "" {
		return s.Kind.Name + ": " + said
	}
	return s.Kind.Name
}

// Parameters returns the step's parameters as JSON, every one of them.
func (s Step) Parameters() json.RawMessage {
	raw, err := json.Marshal(s.Values)
	if err != nil {
		panic(err) // Values hold only what JSON holds
	}
	return raw
}

// stepJSON is how a step is written: its kind's key and its parameters.
type stepJSON struct {
	Kind       string          `json:"kind"`
	Parameters json.RawMessage `json:"parameters"`
}

// MarshalJSON writes the step as {"kind": …, "parameters": {…}}.
func (s Step) MarshalJSON() ([]byte, error) {
	return json.Marshal(stepJSON{s.Kind.Key, s.Parameters()})
}

// UnmarshalJSON reads and checks a step that was kept. Errors: as Parse.
func (s *Step) UnmarshalJSON(raw []byte) error {
	var j stepJSON
	if err := json.Unmarshal(raw, &j); err != nil {
		return ParameterError{"step", "send a step as its kind and parameters"}
	}
	kept, err := Kept(j.Kind, j.Parameters)
	if err != nil {
		return err
	}
	*s, err = kept.checked()
	return err
}

// With returns the step with some parameters changed. Errors: ParameterError.
func (s Step) With(set map[string]any) (Step, error) {
	merged := map[string]any{}
	for k, v := range s.Values {
		merged[k] = v
	}
	for k, v := range set {
		merged[k] = v
	}
	raw, err := json.Marshal(merged)
	if err != nil {
		return s, ParameterError{"parameters", "send an object of parameters"}
	}
	return Parse(s.Kind.Key, raw)
}

// Suits reports whether the step is for an instrument.
func (s Step) Suits(i instrument.Instrument) bool {
	if !i.IsPitched() && !s.Kind.Unpitched {
		return false
	}
	return s.Kind.Suits == nil || s.Kind.Suits(i)
}

// AsksOf reports whether the step asks something of a player: it suits the instrument, and
// where notes known are kept and none is new, there is no new note to learn.
func (s Step) AsksOf(p Player) bool {
	nothingNew := s.Kind.Key == KindNewNote && len(p.Known) > 0 && len(p.New) == 0
	return s.Suits(p.Instrument) && !nothingNew
}

// ErrNotFor reports a step laid out for an instrument it does not suit.
var ErrNotFor = fmt.Errorf("exercise: this step is not for this instrument")

// Score works the step out for one player.
func (s Step) Score(p Player, c Conventions) (scores.Score, error) {
	if !s.AsksOf(p) {
		return scores.Score{}, ErrNotFor
	}
	w := newWriter(s, p, c)
	s.lay(w)
	return w.finish(), nil
}

// lay writes the step's segments.
func (s Step) lay(w *writer) {
	if s.Kind.Group == scores.Buzzing && w.c.BuzzOn == BuzzNone {
		w.listenInstead()
		return
	}
	s.Kind.Lay(w, s.Values)
	if first, ok := s.Values["fingers_first"].(bool); ok && first {
		w.s = withFingersFirst(w.s)
	}
}

// Player is whom a score is for.
type Player struct {
	Instrument instrument.Instrument
	Stage      scores.Stage
	// Best is the player's own best hold in seconds, where a kind asks for it; 0
	// when there is none yet.
	Best float64
	// Rungs is where the player's own ladders stand, by key, from 1. A ladder that
	// is not there begins at the step's rung.
	Rungs map[string]int
	// Repeat counts how often the step was played before, for fingers that
	// alternate.
	Repeat int
	// Known are the sounding notes the player knows so far; none means all that
	// the stage reaches. Steps that teach a note, ladders and register work, go
	// beyond them.
	Known []music.MIDI
	// New are the sounding notes that are new to the player this week.
	New []music.MIDI
}
