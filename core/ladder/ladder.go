// Package ladder moves a player up and down the rungs of a way into a hard
// note. Its state comes from a log that is only ever added to: replaying the
// log gives the same state.
package ladder

import (
	"earlychorus/core/music"
	"earlychorus/core/verdict"
)

// Rules say when a rung is passed and when it is left (common practice, no
// published source).
type Rules struct {
	CleanInARow int           `json:"clean_in_a_row" doc:"clean takes in a row that pass a rung"`
	FailsInARow int           `json:"fails_in_a_row" doc:"takes in a row that are not yet right, and lead back"`
	DayTries    int           `json:"day_tries" doc:"tries a day that count"`
	DaySeconds  music.Seconds `json:"day_s" doc:"time a day that counts"`
	StuckTries  int           `json:"stuck_tries" doc:"tries on one rung after which somebody should listen"`
}

// Standard are the usual rules: three clean in a row up, two fails back, twelve
// tries or five minutes a day.
func Standard() Rules {
	return Rules{
		CleanInARow: 3,
		FailsInARow: 2,
		DayTries:    12,
		DaySeconds:  300,
		StuckTries:  4,
	}
}

// Version changes when the rules or their meaning do: a state that was kept is
// then worked out anew.
const Version = 2

// Happening is what a line of the log says.
type Happening string

const (
	Tried       Happening = "tried"        // a take of the rung
	SteppedBack Happening = "stepped-back" // the player or the director chose to
	Placed      Happening = "placed"       // the director put the player on a rung
)

// Entry is a line of the log.
type Entry struct {
	What    Happening      `json:"what" enum:"tried,stepped-back,placed"`
	Day     string         `json:"day" doc:"the school's date"`
	Rung    int            `json:"rung" doc:"from 1: the rung that was tried, or put on"`
	Result  verdict.Result `json:"result,omitempty"`
	Hard    bool           `json:"hard,omitempty" doc:"hard notes were far outside: not held against the grade, but a fail on the ladder"`
	Seconds music.Seconds  `json:"seconds,omitempty"`
}

// TriedOn is the line of a take of a rung: what was said of it, and how long it
// lasted.
func TriedOn(day string, rung int, v verdict.Verdict, length music.Seconds) Entry {
	return Entry{
		What:    Tried,
		Day:     day,
		Rung:    rung,
		Result:  v.Result,
		Hard:    v.FailedHard(),
		Seconds: length,
	}
}

// State is where a player stands. The zero State is before the first rung's
// first try.
type State struct {
	Rung    int    `json:"rung" doc:"from 1"`
	Clean   int    `json:"clean" doc:"clean in a row on it"`
	Fails   int    `json:"fails" doc:"not yet in a row on it"`
	Tries   int    `json:"tries" doc:"on this rung since it was last come to"`
	Passed  []bool `json:"passed" doc:"by rung"`
	Backs   int    `json:"backs" doc:"times led back in all"`
	Slipped bool   `json:"slipped" doc:"led back, and no new rung passed since"`
	Reached bool   `json:"reached" doc:"the last rung was passed"`

	Day        string        `json:"day,omitempty" doc:"of the latest entry"`
	DayTries   int           `json:"day_tries"`
	DaySeconds music.Seconds `json:"day_s"`
}

// Start is the state on the first of so many rungs.
func Start(rungs int) State { return State{Rung: 1, Passed: make([]bool, rungs)} }

// Move is what an entry did.
type Move string

const (
	Stayed    Move = "stayed"
	Up        Move = "up"
	Back      Move = "back"
	Goal      Move = "goal"      // the last rung passed for the first time
	OverCap   Move = "over-cap"  // practice, but the day's tries are used up
	Elsewhere Move = "elsewhere" // a take of another rung than the player stands on
)

// Replay returns where a log leads.
func (r Rules) Replay(rungs int, log []Entry) State {
	s := Start(rungs)
	for _, e := range log {
		s, _ = r.Next(s, e)
	}
	return s
}

// Next returns the state after an entry. s is left as it was.
func (r Rules) Next(s State, e Entry) (State, Move) {
	s.Passed = append([]bool(nil), s.Passed...)
	if e.Day != s.Day {
		s.Day, s.DayTries, s.DaySeconds = e.Day, 0, 0
	}
	switch e.What {
	case Placed:
		return s.to(min(max(1, e.Rung), len(s.Passed))), Stayed
	case SteppedBack:
		return s.back(), Back
	}
	return r.tried(s, e)
}

func (r Rules) tried(s State, e Entry) (State, Move) {
	switch {
	case e.Result == verdict.CantTell:
		return s, Stayed // the recording's fault, and nobody's try
	case r.Capped(s, e.Day):
		return s, OverCap
	}
	s.DayTries++
	s.DaySeconds += e.Seconds
	if e.Rung != s.Rung {
		return s, Elsewhere
	}
	s.Tries++
	switch {
	case e.Result == verdict.Clean:
		s.Clean, s.Fails = s.Clean+1, 0
	case e.Hard:
		s.Clean, s.Fails = 0, s.Fails+1 // a hard note that does not come leads back like any other
	case e.Result == verdict.Nearly:
		s.Clean, s.Fails = 0, 0
	default:
		s.Clean, s.Fails = 0, s.Fails+1
	}
	switch {
	case s.Clean >= r.CleanInARow:
		return s.pass()
	case s.Fails >= r.FailsInARow:
		return s.back(), Back
	}
	return s, Stayed
}

// Capped reports whether the day's tries or minutes are used up.
func (r Rules) Capped(s State, day string) bool {
	return s.Day == day && (s.DayTries >= r.DayTries || s.DaySeconds >= r.DaySeconds)
}

// Stuck reports whether somebody should listen: many tries on one rung, or a
// step back.
func (r Rules) Stuck(s State) bool {
	return !s.Reached && (s.Slipped || s.Tries >= r.StuckTries && s.Clean == 0)
}

// Needs is how many more clean takes in a row the rung asks for.
func (r Rules) Needs(s State) int { return max(0, r.CleanInARow-s.Clean) }

func (s State) pass() (State, Move) {
	if !s.Passed[s.Rung-1] {
		s.Passed[s.Rung-1], s.Slipped = true, false
	}
	if s.Rung < len(s.Passed) {
		return s.to(s.Rung + 1), Up
	}
	first := !s.Reached
	s.Reached = true
	s = s.to(s.Rung)
	if first {
		return s, Goal
	}
	return s, Stayed
}

// back returns to the last clean rung below; to the one below where none is.
func (s State) back() State {
	s.Backs, s.Slipped = s.Backs+1, true
	for n := s.Rung - 1; n >= 1; n-- {
		if s.Passed[n-1] {
			return s.to(n)
		}
	}
	return s.to(max(1, s.Rung-1))
}

func (s State) to(rung int) State {
	s.Rung, s.Clean, s.Fails, s.Tries = rung, 0, 0, 0
	return s
}
