// Package playtest is a playing test: a step that is handed in by a day, of whose takes the
// first so many count, the best or the last of them. What cannot be judged is held against
// nobody, and hard notes neither.
package playtest

import (
	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/verdict"
)

// Test is what makes a step a test.
type Test struct {
	Due    string `json:"due" format:"date" doc:"the last day on which takes count"`
	Takes  int    `json:"takes" doc:"how many takes count, 1 to 10; what is played after them is practice"`
	Counts Counts `json:"counts" enum:"best,last" doc:"which of those takes is the result"`
}

// Counts is which of the takes that count is the result.
type Counts string

const (
	Best Counts = "best"
	Last Counts = "last"
)

const mostTakes = 10

// Check reports the first thing in a test that cannot be used, or nil. Errors:
// exercise.ParameterError.
func (t Test) Check() error {
	switch {
	case t.Takes < 1 || t.Takes > mostTakes:
		return exercise.ParameterError{Field: "test.takes", Remedy: fmt.Sprintf("let 1 to %d takes count", mostTakes)}
	case t.Counts != Best && t.Counts != Last:
		return exercise.ParameterError{Field: "test.counts", Remedy: "let the best or the last take count"}
	}
	return nil
}

// Take is a take of a test.
type Take struct {
	ID     string
	Day    string         // the school's date on which it was played, as 2026-11-30
	Result verdict.Result // by the last word on it; "" while it waits
}

// Standing is how a player's test stands.
type Standing struct {
	Used   int            `json:"used" doc:"takes that count so far"`
	Waits  bool           `json:"waits,omitempty" doc:"one of them is not judged yet"`
	Late   bool           `json:"late,omitempty" doc:"all that was played came after the day it was due"`
	Result verdict.Result `json:"result,omitempty" enum:"clean,nearly,not-yet,cant-tell"`
	Take   string         `json:"take,omitempty" doc:"the one that is the result"`
}

// Standing returns how a test stands after takes, in the order in which they were played.
func (t Test) Standing(takes []Take) (s Standing) {
	inTime := 0
	for _, take := range takes {
		if take.Day > t.Due {
			continue
		}
		inTime++
		switch {
		case s.Used == t.Takes:
		case take.Result == "":
			s.Used, s.Waits = s.Used+1, true
		case take.Result == verdict.CantTell: // uses nothing up, and is shown where nothing else is
			if s.Result == "" {
				s.Result, s.Take = take.Result, take.ID
			}
		default:
			s.Used++
			unjudged := s.Result == "" || s.Result == verdict.CantTell
			better := verdict.Better(take.Result, s.Result) == take.Result && take.Result != s.Result
			if unjudged || t.Counts == Last || better {
				s.Result, s.Take = take.Result, take.ID
			}
		}
	}
	s.Late = inTime == 0 && len(takes) > 0
	return s
}

// Points of a result in a gradebook, of MostPoints: a word is worth a step (common practice, no
// published source).
func Points(r verdict.Result) int { return points[r] }

// MostPoints are those of a clean take.
const MostPoints = 3

var points = map[verdict.Result]int{
	verdict.Clean:  3,
	verdict.Nearly: 2,
	verdict.NotYet: 1,
}
