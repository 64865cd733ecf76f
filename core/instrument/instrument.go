// Package instrument holds the band's instruments: what they read against
// what they sound, where their notes lie, how they are fingered, and the
// physics of their tubes.
package instrument

import (
	"fmt"

	"earlychorus/core/music"
)

// Family groups instruments that share a way of sounding, and so a spectrum,
// a set of faults and a set of tips.
type Family string

const (
	Flutes      Family = "flute"
	DoubleReeds Family = "double-reed"
	Clarinets   Family = "clarinet"
	Saxophones  Family = "saxophone"
	Brass       Family = "brass"
	Recorders   Family = "recorder"
)

// Clef is the clef an instrument's music is written in.
type Clef string

const (
	Treble Clef = "treble"
	Bass   Clef = "bass"
)

// Span is a stretch of sounding notes, both ends included.
type Span struct{ From, To music.MIDI }

// Contains reports whether m lies in the span.
func (s Span) Contains(m music.MIDI) bool { return s.From <= m && m <= s.To }

// Instrument is one row of the band's table. Every pitch in it sounds;
// Transposition leads to the written one.
type Instrument struct {
	Key     string // stable name in files and addresses: "alto-sax"
	Name    string // "Alto saxophone"
	Section string // the group of its players: "Alto saxophones"
	Family  Family
	Clef    Clef

	Transposition int           // written minus sounding, in semitones
	FirstFive     [5]music.MIDI // the first notes taught; the first is home
	Beginner      Span          // what beginners are asked for
	Register      string        // how the upper register is reached
	Overblow      int           // semitones the register mechanism gives; 0 for brass
	Hard          []Span        // notes not held against a beginner at first

	tube *tube // brass only
}

// Home is the note an instrument starts from.
func (i Instrument) Home() music.MIDI { return i.FirstFive[0] }

// Written returns the note a player reads for sounding note m.
func (i Instrument) Written(m music.MIDI) music.MIDI { return m + music.MIDI(i.Transposition) }

// IsHard reports whether sounding note m is one beginners are not yet held to.
func (i Instrument) IsHard(m music.MIDI) bool {
	for _, span := range i.Hard {
		if span.Contains(m) {
			return true
		}
	}
	return false
}

// UnknownError reports a key no instrument has.
type UnknownError struct{ Key string }

func (e UnknownError) Error() string {
	return fmt.Sprintf("instrument: there is no instrument %q; the keys are %v", e.Key, Keys())
}

// Get returns the instrument with the given key, or an UnknownError.
func Get(key string) (Instrument, error) {
	for _, i := range table {
		if i.Key == key {
			return i, nil
		}
	}
	return Instrument{}, UnknownError{key}
}

// All returns every instrument in score order.
func All() []Instrument { return append([]Instrument(nil), table...) }

// Keys returns every instrument's key in score order.
func Keys() []string {
	keys := make([]string, len(table))
	for n, i := range table {
		keys[n] = i.Key
	}
	return keys
}
