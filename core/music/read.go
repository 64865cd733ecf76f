package music

import "strings"

// ReadNote reads a note as a director types it: "E3", "F#4", "B♭3", C4 being middle C.
// Octaves go from 0 to 9; ok is false for anything else. (A regular expression would bring
// its machinery into the browser.)
func ReadNote(name string) (s Spelling, ok bool) {
	name = strings.TrimSpace(name)
	if len(name) < 2 {
		return Spelling{}, false
	}
	step, sign, octave := strings.ToUpper(name[:1]), name[1:len(name)-1], name[len(name)-1]
	alter, known := alters[sign]
	if !known || !strings.Contains("ABCDEFG", step) || octave < '0' || octave > '9' {
		return Spelling{}, false
	}
	return Spelling{Step: step, Alter: alter, Octave: int(octave - '0')}, true
}

// alters are sharps and flats as typed or as printed.
var alters = map[string]int{
	"":  0,
	"#": 1,
	"♯": 1,
	"b": -1,
	"♭": -1,
}
