package music

import "strconv"

// Naming is how a class calls notes.
type Naming string

const (
	English Naming = "english" // C D E, with B♭ and B
	German  Naming = "german"  // C D E, with B and H
	Romance Naming = "romance" // do re mi
)

// Namings lists them.
func Namings() []Naming { return []Naming{English, German, Romance} }

var romance = map[string]string{"C": "do", "D": "re", "E": "mi", "F": "fa", "G": "sol", "A": "la", "B": "si"}

// Name returns the note without its octave, as the class calls it.
func (n Naming) Name(s Spelling) string {
	switch n {
	case Romance:
		return romance[s.Step] + accidental(s.Alter)
	case German:
		return germanName(s)
	}
	return s.Name()
}

// germanName: B is H and B flat is B; sharps end in -is, flats in -es, with the
// usual contractions (from memory).
func germanName(s Spelling) string {
	step := s.Step
	if step == "B" {
		step = "H"
	}
	switch {
	case s.Alter > 0:
		return step + "is"
	case s.Alter == 0:
		return step
	case step == "H":
		return "B"
	case step == "A" || step == "E":
		return step + "s"
	}
	return step + "es"
}

func accidental(alter int) string {
	switch alter {
	case 1:
		return "♯"
	case -1:
		return "♭"
	}
	return ""
}

// WithOctave returns the note and its octave, C4 being middle C in every naming.
func (n Naming) WithOctave(s Spelling) string { return n.Name(s) + strconv.Itoa(s.Octave) }
