package exercise

import (
	"slices"
	"strings"

	"earlychorus/core/fmt"
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

// concertNames lists degrees as a director says them: "B♭ then F".
func concertNames(degrees []Degree) string {
	names := make([]string, len(degrees))
	for n, d := range degrees {
		names[n] = d.ConcertName()
	}
	return strings.Join(names, " then ")
}

// ConcertName returns the degree's concert note without octave: degree 7 is "F".
func (d Degree) ConcertName() string {
	return music.ConcertBFlat.Spell(bandHome + music.MIDI(d)).Name()
}

// placed is where a degree lies on one instrument.
type placed struct {
	note   music.MIDI
	notice string // set when the note is not where the band's pattern has it
}

// place puts a degree on the instrument: at the home note, or an octave away,
// or, where the stage reaches neither, on the nearest note of the pattern that
// it does reach, saying so.
func (w *writer) place(d Degree) placed {
	note := w.i.Home() + music.MIDI(d)
	for _, octave := range []music.MIDI{0, -12, 12} {
		moved := note + octave
		if !w.reaches(moved) {
			continue
		}
		p := placed{note: moved}
		if octave != 0 {
			where := "lower"
			if octave > 0 {
				where = "higher"
			}
			p.notice = fmt.Sprintf(
				"%s plays concert %s an octave %s: the note itself lies outside %s.",
				w.i.Name,
				d.ConcertName(),
				where,
				w.outside(note),
			)
		}
		return p
	}
	instead := w.nearest(d)
	return placed{
		w.i.Home() + music.MIDI(instead),
		fmt.Sprintf("%s plays concert %s instead of %s, which lies outside %s.",
			w.i.Name, instead.ConcertName(), d.ConcertName(), w.outside(note)),
	}
}

// reaches reports whether a note may be asked of the player.
func (w *writer) reaches(note music.MIDI) bool {
	// What the director says is known goes before what a stage usually reaches.
	if len(w.player.Known) > 0 {
		return slices.Contains(w.player.Known, note)
	}
	return w.stage.Span(w.i).Contains(note)
}

// outside says what a note that is not reached lies outside of.
func (w *writer) outside(note music.MIDI) string {
	if len(w.player.Known) > 0 {
		return "the notes known so far"
	}
	return "what this stage asks for"
}

// nearest returns the degree of the pattern, or home, that lies nearest to d and
// is reached.
func (w *writer) nearest(d Degree) Degree {
	best := Degree(0)
	for _, other := range w.pattern {
		if w.reaches(w.i.Home()+music.MIDI(other)) && (best == 0 || distance(other, d) < distance(best, d)) {
			best = other
		}
	}
	return best
}

func distance(a, b Degree) Degree { return max(a-b, b-a) }

// WrittenKey returns the written key of an instrument when the band plays in concert
// B♭. Recorders play from their own home note, so in their own home's key.
func WrittenKey(i instrument.Instrument) music.Key {
	shift := int(i.Home()-bandHome) + i.Transposition
	return music.ConcertBFlat.Transposed(shift)
}

// SoundingKey is the key a listener hears, for naming concert notes.
func SoundingKey(i instrument.Instrument) music.Key {
	return music.ConcertBFlat.Transposed(int(i.Home() - bandHome))
}

// homeNotice tells when an instrument's home is not concert B♭.
func homeNotice(i instrument.Instrument) string {
	if (i.Home()-bandHome)%12 == 0 {
		return ""
	}
	home := SoundingKey(i).Spell(i.Home()).Name()
	return fmt.Sprintf("%s starts from its own home note, concert %s, where the band has B♭.", i.Name, home)
}

// FirstFive are the notes a class learns first, up from home.
var FirstFive = []Degree{0, 2, 4, 5, 7}
