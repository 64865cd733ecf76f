package music

import (
	"regexp"
	"strconv"
	"strings"
)

// written is a note's name with its octave, sharps and flats as typed or as printed.
var written = regexp.MustCompile(`^([A-Ga-g])([#♯b♭]?)(\d)$`)

// ReadNote reads a note as a director types it: "E3", "F#4", "B♭3", C4 being middle C.
// Octaves go from 0 to 9; ok is false for anything else.
func ReadNote(name string) (s Spelling, ok bool) {
	m := written.FindStringSubmatch(strings.TrimSpace(name))
	if m == nil {
		return Spelling{}, false
	}
	octave, err := strconv.Atoi(m[3])
	if err != nil {
		return Spelling{}, false
	}
	alter := map[string]int{"#": 1, "♯": 1, "b": -1, "♭": -1}[m[2]]
	return Spelling{Step: strings.ToUpper(m[1]), Alter: alter, Octave: octave}, true
}
