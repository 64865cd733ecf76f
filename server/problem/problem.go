// Package problem is what can be wrong with what somebody sent, in words for that
// person: which part, and what to do about it. The API alone knows which of them
// is which status.
package problem

import "fmt"

// Kind says whose fault it is, roughly.
type Kind int

const (
	Unusable      Kind = iota // what was sent cannot be used as it is
	TooLarge                  // more than is taken
	UnknownFormat             // a format this program does not read
	Conflict                  // something else is here already, or came meanwhile
	Missing                   // nothing is here under that name
	NotSignedIn
	Gone // it was here and was let go of
	TooManyTries
	Foreign // asked for by somebody else's page
)

// Error is a problem. Field names the part as the sender does ("" for the whole),
// Remedy is a sentence for the person.
type Error struct {
	Kind    Kind
	Field   string
	Remedy  string
	Details []Detail
	Err     error // what it comes from, where that is an error of its own
}

// Detail is one of several parts that are wrong.
type Detail struct{ Field, Remedy string }

func (e Error) Error() string {
	text := e.Remedy
	if e.Field != "" {
		text = e.Field + ": " + text
	}
	if e.Err != nil {
		text = fmt.Sprintf("%s (%v)", text, e.Err)
	}
	return text
}

func (e Error) Unwrap() error { return e.Err }

// Input reports a field that cannot be used, and the remedy.
func Input(field, remedy string) Error { return Error{Kind: Unusable, Field: field, Remedy: remedy} }

// Of reports what cannot be used as a whole, with what it comes from.
func Of(kind Kind, remedy string, cause error) Error {
	return Error{Kind: kind, Remedy: remedy, Err: cause}
}
