// Package instrument holds the band's instruments: what they read against
// what they sound, where their notes lie, how they are fingered, and the
// physics of their tubes.
package instrument

import (
	"earlychorus/core/fmt"
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
	Percussion  Family = "percussion"
	NoneYet     Family = "none yet"
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
	Tuning        music.MIDI    // the note it tunes on where each takes its own
	Variants      []Variant     // ways it is built; the first is the usual one
	Tunes         string        // the part that is moved to tune it; "" for none
	TunesMost     float64       // how far it may be moved, mm (common practice, no published source)
	TunesElse     string        // what is done where nothing is moved, in words
	MIDIProgram   int           // General MIDI System Level 1, counted from 0
	Aliases       []string      // what lists of players call it, in plain small letters

	tube  *tube // brass only
	chart chart // woodwinds only
}

// Variant is one of the ways an instrument is built.
type Variant struct {
	Key    string `json:"key" doc:"empty for the usual one"`
	Name   string `json:"name"`
	valves int
	tube   music.MIDI // first partial of its open tube, where that is another; 0: the same
}

// As returns the instrument built in another of its ways, or an UnknownError.
func (i Instrument) As(variant string) (Instrument, error) {
	for _, v := range i.Variants {
		if v.Key == variant {
			usual, err := Get(i.Key) // whatever it was built as before
			if err != nil {
				return i, err
			}
			built := *usual.tube
			built.valves = v.valves
			if v.tube != 0 {
				built.fundamental = v.tube
			}
			i.tube = &built
			return i, nil
		}
	}
	if variant == "" {
		return i, nil
	}
	return i, UnknownVariantError{i, variant}
}

// UnknownVariantError reports a variant that an instrument is not built in.
type UnknownVariantError struct {
	Instrument Instrument
	Variant    string
}

func (e UnknownVariantError) Error() string {
	return fmt.Sprintf("instrument: there is no %s %q", e.Instrument.Name, e.Variant)
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

// IsPitched reports whether notes are asked of the instrument: of all but percussion, and of
// whoever has none yet.
func (i Instrument) IsPitched() bool { return i.Family != Percussion && i.Family != NoneYet }

// Get returns the instrument with the given key, percussion too, or an UnknownError.
func Get(key string) (Instrument, error) {
	for _, i := range Band() {
		if i.Key == key {
			return i, nil
		}
	}
	return Instrument{}, UnknownError{key}
}

// Band returns whatever a player of a band may play, in score order: every instrument,
// percussion, and no instrument yet.
func Band() []Instrument { return append(All(), percussion, noneYet) }

// All returns every instrument that plays notes, in score order.
func All() []Instrument { return append([]Instrument(nil), table...) }

// Keys returns every instrument's key in score order.
func Keys() []string {
	keys := make([]string, len(table))
	for n, i := range table {
		keys[n] = i.Key
	}
	return keys
}
