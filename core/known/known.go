// Package known keeps which notes the players of a class know: the first five at the start,
// then each new note that the director gives, new for a week. A player may be ahead or behind.
package known

import (
	"fmt"
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Note is a note of one instrument's list.
type Note struct {
	Sounding music.MIDI `json:"midi" doc:"the sounding note"`
	Week     string     `json:"week,omitempty" doc:"the Monday of the week in which it is new; empty: known from the start"`
}

// Book is what a class knows, instrument by instrument.
type Book struct {
	// ByStage has every note that a stage reaches count as known: nothing is kept.
	ByStage bool `json:"by_stage,omitempty" doc:"every note that the stage reaches counts as known"`
	// Notes are an instrument's, where they are not the first five alone.
	Notes map[string][]Note `json:"notes,omitempty" doc:"by instrument; left out: the first five"`
}

// Own is how one player differs from the class.
type Own struct {
	Ahead  []music.MIDI `json:"ahead,omitempty" doc:"sounding notes known before the class"`
	Behind []music.MIDI `json:"behind,omitempty" doc:"sounding notes not known yet"`
}

// Of returns the list of an instrument as it is kept: the first five, where nothing is.
func (b Book) Of(i instrument.Instrument) []Note {
	if own, ok := b.Notes[i.Key]; ok {
		return own
	}
	out := make([]Note, len(i.FirstFive))
	for n, m := range i.FirstFive {
		out[n] = Note{Sounding: m}
	}
	return out
}

// State is how a note stands in a week.
type State string

const (
	Known State = "known"
	New   State = "new"
	Later State = "later" // given for a week to come
)

// In returns how the note stands in the week of a Monday, written as 2026-11-30.
func (n Note) In(monday string) State {
	switch {
	case n.Week < monday: // dates in this form sort as the days they are; "" comes first
		return Known
	case n.Week > monday:
		return Later
	}
	return New
}

// For returns what one player knows in the week of a Monday, and what is new then: sounding
// notes, from the lowest. known is nil where every note that the stage reaches counts.
func (b Book) For(i instrument.Instrument, own Own, monday string) (known, fresh []music.MIDI) {
	// What was known on another instrument may lie outside this one's range.
	known = slices.DeleteFunc(slices.Clone(own.Ahead), func(m music.MIDI) bool { return !i.Beginner.Contains(m) })
	for _, n := range b.Of(i) {
		switch n.In(monday) {
		case Known:
			known = append(known, n.Sounding)
		case New:
			if !slices.Contains(own.Ahead, n.Sounding) {
				fresh = append(fresh, n.Sounding)
			}
		}
	}
	isBehind := func(m music.MIDI) bool { return slices.Contains(own.Behind, m) }
	known = slices.DeleteFunc(known, isBehind)
	slices.Sort(known)
	slices.Sort(fresh)
	switch {
	case b.ByStage:
		return nil, fresh
	case len(known) == 0: // none at all would mean all of them
		return []music.MIDI{i.Home()}, fresh
	}
	return slices.Compact(known), fresh
}

// isDate reports whether a week is written as a date is. (A regular expression would bring
// its machinery into the browser.)
func isDate(s string) bool {
	const like = "0000-00-00"
	if len(s) != len(like) {
		return false
	}
	for n := range len(like) {
		digit := '0' <= s[n] && s[n] <= '9'
		if digit != (like[n] == '0') || !digit && s[n] != like[n] {
			return false
		}
	}
	return true
}

// mostNew is how many notes may be new on one instrument in one week: more are not learnt.
const mostNew = 2

// Check reports the first thing in a book that cannot be used, or nil. Errors:
// exercise.ParameterError.
func (b Book) Check() error {
	for key, notes := range b.Notes {
		i, err := instrument.Get(key)
		if err != nil || !i.IsPitched() {
			return exercise.ParameterError{
				Field:  "notes",
				Remedy: fmt.Sprintf("%q is no instrument that plays notes", key),
			}
		}
		field := "notes." + key
		weeks := map[string]int{}
		for _, n := range notes {
			if !i.Beginner.Contains(n.Sounding) {
				return exercise.ParameterError{
					Field:  field,
					Remedy: "choose notes inside the instrument's beginner range",
				}
			}
			if n.Week == "" {
				continue
			}
			if !isDate(n.Week) {
				return exercise.ParameterError{Field: field, Remedy: "name the week by its Monday, as 2026-11-30"}
			}
			if weeks[n.Week]++; weeks[n.Week] > mostNew {
				return exercise.ParameterError{Field: field, Remedy: "give at most two new notes in one week"}
			}
		}
		if len(notes) < leastKnown {
			return exercise.ParameterError{Field: field, Remedy: "leave at least two notes to play"}
		}
	}
	return nil
}

// leastKnown notes make a pattern.
const leastKnown = 2

// Check reports a note that the player's instrument does not have, or nil. Errors:
// exercise.ParameterError.
func (o Own) Check(i instrument.Instrument) error {
	for _, m := range slices.Concat(o.Ahead, o.Behind) {
		if !i.Beginner.Contains(m) {
			return exercise.ParameterError{
				Field:  "ahead",
				Remedy: "choose notes inside the instrument's beginner range",
			}
		}
	}
	return nil
}
