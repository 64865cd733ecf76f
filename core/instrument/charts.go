package instrument

import (
	"strings"

	"earlychorus/core/music"
)

// chart finds how a written note is fingered on an instrument; ok is false where
// the table has no entry.
type chart func(i Instrument, written music.MIDI) (text string, ok bool)

// The tables below are the standard beginners' charts (from memory: no registry that we
// reach carries a published one). An empty entry is a note whose fingering differs too
// much between instruments to name one. Keys are named where they are pressed: before
// the bar by the left hand, behind it by the right.

// either parts the usual fingering from the alternates of the same note.
const either = " / "

// clarinetLow runs from written E♭3 (bass clarinet) to B♭4.
var clarinetLow = []string{
	"T 123 | 123 + E♭", "T 123 | 123 + E", "T 123 | 123 + F", "T 123 | 123 + F♯", "T 123 | 123", "T 123 | 123 + G♯",
	"T 123 | 12", "T 123 | 1", "T 123 | 2", "T 123", "T 123 + C♯", "T 12", "T 12 | side E♭", "T 1", "T",
	"1", "open", "G♯ key", "A key", "A key + R",
}

// clarinetChart: over the break every note is the one a twelfth below
// with the register key (R) added.
func clarinetChart(_ Instrument, written music.MIDI) (string, bool) {
	if written >= 71 && written <= 84 {
		low, ok := at(clarinetLow, int(written-19-51))
		return "R " + low, ok
	}
	return at(clarinetLow, int(written-51))
}

// saxophoneLow runs from written A3 (baritone only) to C♯5. The lowest notes keep the low
// C key down; their own keys are the left little finger's, low A the left thumb's.
var saxophoneLow = []string{
	"low A 123 | 123 low C",
	"123 low B♭ | 123 low C",
	"123 low B | 123 low C",
	"123 | 123 low C",
	"123 low C♯ | 123 low C",
	"123 | 123",
	"123 | 123 + E♭",
	"123 | 12",
	"123 | 1",
	"123 | 2",
	"123",
	"123 + G♯",
	"12",
	"12 | side B♭ / 1 bis / 1 | 1",
	"1",
	"2",
	"open",
}

var saxophonePalm = []string{
	"Oct + palm D", "Oct + palm D + palm E♭", "Oct + palm D + palm E♭ | side E",
	"Oct + palm D + palm E♭ + palm F | side E",
}

// saxophoneChart: from D5 the octave key (Oct) is added to the note an
// octave below; above C♯6 come the palm keys.
func saxophoneChart(_ Instrument, written music.MIDI) (string, bool) {
	switch {
	case written >= 86:
		return at(saxophonePalm, int(written-86))
	case written >= 74:
		low, ok := at(saxophoneLow, int(written-12-57))
		return withEach("Oct ", low), ok
	}
	return at(saxophoneLow, int(written-57))
}

// fluteShapes runs from C4 to F6; E♭ is the right little finger.
var fluteShapes = []string{
	"T 123 | 123 + low C",
	"T 123 | 123 + low C♯",
	"T 123 | 123",
	"T 123 | 123 E♭",
	"T 123 | 12 E♭",
	"T 123 | 1 E♭",
	"T 123 | 3 E♭",
	"T 123 | E♭",
	"T 123 G♯ | E♭",
	"T 12 | E♭",
	"T 1 | 1 E♭ / thumb B♭ 1 | E♭",
	"T 1 | E♭",
	"1 | E♭",
	"open | E♭",
	"T 23 | 123",
	"T 23 | 123 E♭",
	"T 123 | 12 E♭",
	"T 123 | 1 E♭",
	"T 123 | 3 E♭",
	"T 123 | E♭",
	"T 123 G♯ | E♭",
	"T 12 | E♭",
	"T 1 | 1 E♭ / thumb B♭ 1 | E♭",
	"T 1 | E♭",
	"1 | E♭",
	"open | E♭",
	"T 23 | E♭",
	"T 123 G♯ | 123 E♭",
	"T 12 | 12 E♭",
	"T 1 3 | 1 E♭",
}

func fluteChart(_ Instrument, written music.MIDI) (string, bool) {
	return at(fluteShapes, int(written-60))
}

// oboeShapes runs from C4 to C6; ½ is the half hole, I and II the octave keys.
var oboeShapes = []string{
	"123 | 123 C",
	"123 | 123 C♯",
	"123 | 123",
	"123 | 123 E♭",
	"123 | 12",
	"123 | 12 F / 123 | 1 3",
	"123 | 1",
	"123",
	"123 G♯",
	"12",
	"12 | 1",
	"1",
	"1 | 1",
	"½ 123 | 123 C♯",
	"½ 123 | 123",
	"½ 123 | 123 E♭",
	"I 123 | 12",
	"I 123 | 12 F / I 123 | 1 3",
	"I 123 | 1",
	"I 123",
	"I 123 G♯",
	"II 12",
	"II 12 | 1",
	"II 1",
	"II 1 | 1",
}

func oboeChart(_ Instrument, written music.MIDI) (string, bool) {
	return at(oboeShapes, int(written-60))
}

// bassoonShapes runs from B♭1 to C4; W is the whisper key, ½ the half hole.
var bassoonShapes = []string{
	"thumb B♭ B C D 123 | thumb E 123 F",
	"thumb B C D 123 | thumb E 123 F",
	"thumb C D 123 | thumb E 123 F",
	"thumb C D 123 C♯ | thumb E 123 F",
	"thumb D 123 | thumb E 123 F",
	"thumb D 123 E♭ | thumb E 123 F",
	"W 123 | thumb E 123 F",
	"W 123 | 123 F",
	"W 123 | thumb F♯ 123 F",
	"W 123 | 123",
	"W 123 | 123 G♯",
	"W 123 | 12",
	"W 123 | thumb B♭ 12",
	"W 123 | 1",
	"W 123",
	"W 123 + thumb C♯",
	"W 12",
	"W 1 3",
	"W 1",
	"W",
	"W ½123 | thumb F♯ 123 F",
	"W ½123 | 123",
	"W ½123 | 123 G♯",
	"flick A 123 | 12",
	"flick A 123 | thumb B♭ 12",
	"flick C 123 | 1",
	"flick C 123",
}

func bassoonChart(_ Instrument, written music.MIDI) (string, bool) {
	return at(bassoonShapes, int(written-34))
}

// recorderShapes rises by semitones from the lowest note; ½ is a half-open
// hole, ½T the pinched thumb. Double holes and English (baroque) fingering.
var recorderShapes = []string{
	"T 123 | 4567",
	"T 123 | 456 ½7",
	"T 123 | 456",
	"T 123 | 45 ½6",
	"T 123 | 45",
	"T 123 | 4 67",
	"T 123 | 56",
	"T 123",
	"T 12 | 45 ½6",
	"T 12",
	"T 1 3 | 4",
	"T 1",
	"T 2",
	"12",
	"2",
	"23 | 456",
	"½T 123 | 45",
	"½T 123 | 4 6",
	"½T 123 | 5",
	"½T 123",
	"½T 12 | 4",
	"½T 12",
	"½T 12 | 456",
	"½T 12 | 45",
	"½T 1 | 45",
	"",
	"½T 1 3 | 4 67",
}

// withEach puts a key before a fingering and each of its alternates.
func withEach(key, text string) string {
	return key + strings.ReplaceAll(text, either, either+key)
}

func recorderChart(i Instrument, written music.MIDI) (string, bool) {
	return at(recorderShapes, int(written-i.Written(i.Beginner.From)))
}
