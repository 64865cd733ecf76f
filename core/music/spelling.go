package music

import (
	"strconv"
	"strings"
)

// Spelling is a note as it is read: a step of the staff, its alteration in
// semitones (-1 flat, 1 sharp) and its octave (C4 is middle C).
type Spelling struct {
	Step   string `json:"step" enum:"C,D,E,F,G,A,B"`
	Alter  int    `json:"alter" minimum:"-1" maximum:"1"`
	Octave int    `json:"octave"`
}

const steps = "CDEFGAB"

// semitones above C of each step of the staff.
var semitones = [7]int{0, 2, 4, 5, 7, 9, 11}

// Key is a major key named by its signature: the number of sharps, or minus
// the number of flats, from -7 to 7.
type Key int

// ConcertBFlat is the key a beginning band's first five notes lie in.
const ConcertBFlat Key = -2

// Transposed returns the key read by an instrument whose written note lies
// semis above the sounding one. Twelve semitones change nothing; of two
// enharmonic keys the one with fewer accidentals is taken, flats when even.
func (k Key) Transposed(semis int) Key {
	fifths := int(k) + 7*semis // a semitone is seven fifths, octaves apart
	fifths = ((fifths+5)%12+12)%12 - 5
	if fifths == 6 {
		return -6
	}
	return Key(fifths)
}

// Spell names note m as a player in key k expects to read it: notes of the key
// by the key's own steps, naturals next, and the rest by the harmonic chromatic
// scale on the tonic, from the flat second to the sharp fourth. No note needs
// more than one sharp or flat.
func (k Key) Spell(m MIDI) Spelling {
	pc := mod12(int(m))
	for i := range steps {
		if mod12(semitones[i]+k.alteration(i)) == pc {
			return spelled(m, i, k.alteration(i))
		}
	}
	for i := range steps {
		if semitones[i] == pc {
			return spelled(m, i, 0)
		}
	}
	// In fifths from C, the sharp lies seven above its natural, the flat seven
	// below.
	for i := range steps {
		if mod12(semitones[i]+1) == pc && fifths[i]+7 <= int(k)+sharpFourth {
			return spelled(m, i, 1)
		}
	}
	for i := range steps {
		if mod12(semitones[i]-1) == pc {
			return spelled(m, i, -1)
		}
	}
	panic("music: unreachable: every pitch class is a natural or lies next to one")
}

// fifths above C of each step of the staff, and of the raised fourth above a
// tonic.
var fifths = [7]int{0, 2, 4, -1, 1, 3, 5}

const sharpFourth = 6

func mod12(n int) int { return (n%12 + 12) % 12 }

func spelled(m MIDI, step, alter int) Spelling {
	octave := (int(m)-alter-semitones[step])/12 - 1
	return Spelling{Step: string(steps[step]), Alter: alter, Octave: octave}
}

// alteration returns what the signature does to the i-th step from C.
// Sharps come in the order F C G D A E B, flats in the reverse.
func (k Key) alteration(i int) int {
	const order = "FCGDAEB"
	for n := range order {
		if order[n] != steps[i] {
			continue
		}
		if n < int(k) {
			return 1
		}
		if 6-n < -int(k) {
			return -1
		}
	}
	return 0
}

// MIDI returns the note number s stands for.
func (s Spelling) MIDI() MIDI {
	for i := range steps {
		if string(steps[i]) == s.Step {
			return MIDI(12*(s.Octave+1) + semitones[i] + s.Alter)
		}
	}
	return 0
}

// Name returns the note without its octave: "B♭".
func (s Spelling) Name() string {
	switch s.Alter {
	case 1:
		return s.Step + "♯"
	case -1:
		return s.Step + "♭"
	}
	return s.Step
}

// String returns the note with its octave: "B♭4".
func (s Spelling) String() string { return s.Name() + strconv.Itoa(s.Octave) }

// Alteration returns what a key's signature does to a step of the staff: -1, 0
// or 1. An unknown step is left as it is.
func (k Key) Alteration(step string) int {
	i := strings.Index(steps, step)
	if i < 0 || len(step) != 1 {
		return 0
	}
	return k.alteration(i)
}

// Other returns the other usual name of a black key: G♯4 is A♭4. ok is false for naturals
// and for notes whose other name nobody uses.
func (s Spelling) Other() (other Spelling, ok bool) {
	if s.Alter == 0 {
		return Spelling{}, false
	}
	for i := range steps {
		o := spelled(s.MIDI(), i, -s.Alter)
		if o.MIDI() == s.MIDI() && mod12(semitones[i]-s.Alter) == mod12(int(s.MIDI())) {
			return o, true
		}
	}
	return Spelling{}, false
}

// Accidental is what is drawn before a note that stands alone in a key: "sharp", "flat",
// "natural", or nothing where the signature says it.
func (k Key) Accidental(s Spelling) string {
	if s.Alter == k.Alteration(s.Step) {
		return ""
	}
	return map[int]string{-1: "flat", 0: "natural", 1: "sharp"}[s.Alter]
}
