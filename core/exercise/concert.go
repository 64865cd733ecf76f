package exercise

import (
	"fmt"

	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Degree is a note written once for the whole band: semitones from the home
// note, which is concert B♭ on every instrument but the recorders.
type Degree int

// LowestDegree and HighestDegree bound what a step may ask for: a fourth
// below home to an octave above it.
const (
	LowestDegree  Degree = -5
	HighestDegree Degree = 12
)

// bandHome is the concert B♭ the degrees are named from.
const bandHome music.MIDI = 58

// ConcertName returns the degree's concert note without octave: degree 7 is "F".
func (d Degree) ConcertName() string {
	return music.ConcertBFlat.Spell(bandHome + music.MIDI(d)).Name()
}

// placed is where a degree lies on one instrument.
type placed struct {
	note   music.MIDI
	notice string // set when the note is not where the band's pattern has it
}

// place puts a degree on an instrument: at the home note, or an octave away
// where the beginner range or the stage does not reach, saying so.
func place(d Degree, i instrument.Instrument) placed {
	note := i.Home() + music.MIDI(d)
	for _, octave := range []music.MIDI{0, -12, 12} {
		moved := note + octave
		if !i.Beginner.Contains(moved) {
			continue
		}
		p := placed{note: moved}
		if octave != 0 {
			where := "lower"
			if octave > 0 {
				where = "higher"
			}
			p.notice = fmt.Sprintf("%s plays concert %s an octave %s: the note itself lies outside the beginner range.", i.Name, d.ConcertName(), where)
		}
		return p
	}
	return placed{note: i.Home(), notice: fmt.Sprintf("%s plays its home note instead of concert %s, which lies outside the beginner range.", i.Name, d.ConcertName())}
}

// key returns the written key of an instrument when the band plays in concert
// B♭. Recorders play from their own home note, so in their own home's key.
func key(i instrument.Instrument) music.Key {
	shift := int(i.Home()-bandHome) + i.Transposition
	return music.ConcertBFlat.Transposed(shift)
}

// soundingKey is the key a listener hears, for naming concert notes.
func soundingKey(i instrument.Instrument) music.Key {
	return music.ConcertBFlat.Transposed(int(i.Home() - bandHome))
}

// homeNotice tells when an instrument's home is not concert B♭.
func homeNotice(i instrument.Instrument) string {
	if (i.Home()-bandHome)%12 == 0 {
		return ""
	}
	home := soundingKey(i).Spell(i.Home()).Name()
	return fmt.Sprintf("%s starts from its own home note, concert %s, where the band has B♭.", i.Name, home)
}

// FirstFive are the notes a class learns first, up from home.
var FirstFive = []Degree{0, 2, 4, 5, 7}
