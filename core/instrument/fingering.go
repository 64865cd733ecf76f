package instrument

import (
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
)

// Fingering says how a note is fingered: the usual way first, then the
// alternates a class may prefer. Fingers of the left hand stand before the bar,
// of the right hand behind it; T is the thumb.
type Fingering struct {
	Text       string   `json:"text"`
	Spoken     string   `json:"spoken" doc:"the text for a screen reader"`
	Alternates []string `json:"alternates,omitempty"`
	Diagram    Diagram  `json:"diagram"`
}

// Hands are the schools a class follows where fingers are concerned, and where
// in a pattern the note stands.
type Hands struct {
	EuphoniumC        EuphoniumC
	ClarinetChromatic ClarinetChromatic
	ClarinetLow       ClarinetLow
	Chromatic         bool // the note stands in a chromatic pattern
	Falling           bool // which comes down
	Repeat            int  // from 0: alternates change with it
}

type (
	// EuphoniumC is how C in the staff is fingered where a fourth valve is fitted.
	EuphoniumC string
	// ClarinetChromatic is how E♭ and F♯ are fingered in a chromatic run.
	ClarinetChromatic string
	// ClarinetLow is which little finger low E, F and F♯ begin with.
	ClarinetLow string
)

const (
	CWithOneAndThree EuphoniumC = "1-3"
	CWithFour        EuphoniumC = "4"

	SideKeys    ClarinetChromatic = "side"    // both ways
	ForkGoingUp ClarinetChromatic = "fork-up" // fork and first finger going up, side keys coming down

	AlternateLittle ClarinetLow = "alternate" // with every repeat
	LeftLittle      ClarinetLow = "left"
	RightLittle     ClarinetLow = "right"
)

// UsualHands are the defaults.
func UsualHands() Hands {
	return Hands{EuphoniumC: CWithOneAndThree, ClarinetChromatic: SideKeys, ClarinetLow: AlternateLittle}
}

// Fingering returns how sounding note m is fingered. ok is false where the
// tables have no entry; the player is then sent to the chart in the method.
func (i Instrument) Fingering(m music.MIDI, h Hands) (f Fingering, ok bool) {
	if i.tube != nil {
		f, ok = i.tube.fingering(m, h)
	} else {
		var text string
		text, ok = i.chart(i, i.Written(m))
		ways := strings.Split(text, either)
		f.Text, f.Alternates = ways[0], ways[1:]
		if ok && i.Family == Clarinets {
			f = clarinetChoice(f, i.Written(m), h)
		}
	}
	if ok {
		f.Diagram, f.Spoken = i.draw(f.Text), spoken(f.Text)
	}
	return f, ok
}

// valves[k] lowers the open tube by k semitones.
var valves = [7]string{"open", "2", "1", "1-2", "2-3", "1-3", "1-2-3"}

// fourth[k] does so with the fourth valve, which stands for 1-3.
var fourth = map[int]string{5: "4", 6: "2-4"}

func (t tube) fingering(m music.MIDI, h Hands) (Fingering, bool) {
	_, lowered, ok := t.find(m)
	if !ok {
		return Fingering{}, false
	}
	if t.valves == 0 {
		return Fingering{Text: fmt.Sprintf("position %d", lowered+1)}, true
	}
	f := Fingering{Text: valves[lowered]}
	if other, has := fourth[lowered]; has && t.valves >= 4 {
		f.Alternates = []string{other}
		if h.EuphoniumC == CWithFour {
			f.Text, f.Alternates = other, []string{valves[lowered]}
		}
	}
	return f, true
}

func at(shapes []string, n int) (string, bool) {
	if n < 0 || n >= len(shapes) || shapes[n] == "" {
		return "", false
	}
	return shapes[n], true
}

// The clarinet's notes with two ways, in its lower register (written).
const (
	clarinetB      music.MIDI = 59
	clarinetEFlat  music.MIDI = 63
	clarinetFSharp music.MIDI = 66
	lowestE        music.MIDI = 52
	lowestFSharp   music.MIDI = 54
)

// A clarinet's cross keys are the slivers between two rings, each pressed by the third
// finger of its hand.
const (
	sideEFlat   = "T 12 | side E♭"
	crossEFlat  = "T 12 cross E♭"
	oneAndOne   = "T 1 | 1"
	crossB      = "T 123 | 1 cross B"
	sideFSharp  = "T | two side keys"
	firstFSharp = "1"
)

// clarinetChoice applies the class's schools to a clarinet's fingering.
func clarinetChoice(f Fingering, written music.MIDI, h Hands) Fingering {
	rising := h.ClarinetChromatic == ForkGoingUp && !h.Falling
	switch {
	case written == clarinetB && h.Chromatic:
		f.Text, f.Alternates = crossB, []string{f.Text}
	case written == clarinetB:
		f.Alternates = []string{crossB}
	case written == clarinetEFlat && h.Chromatic && rising:
		f.Text, f.Alternates = crossEFlat, []string{sideEFlat, oneAndOne}
	case written == clarinetEFlat:
		f.Text, f.Alternates = sideEFlat, []string{crossEFlat, oneAndOne}
	case written == clarinetFSharp && h.Chromatic && !rising:
		f.Text, f.Alternates = sideFSharp, []string{firstFSharp}
	case written == clarinetFSharp:
		f.Text, f.Alternates = firstFSharp, []string{sideFSharp}
	case written >= lowestE && written <= lowestFSharp:
		left, right := f.Text+" (left)", f.Text+" (right)"
		f.Text, f.Alternates = left, []string{right}
		if !leftPlays(written, h) {
			f.Text, f.Alternates = right, []string{left}
		}
	}
	return f
}

// leftPlays reports whether the left little finger has low E, F or F♯. Neighbours never
// share a finger: begun on the left it is left, right, left.
func leftPlays(written music.MIDI, h Hands) bool { return h.BeginsLeft() == (written != lowestE+1) }

// BeginsLeft reports whether a clarinet's low start is the left little finger's turn.
func (h Hands) BeginsLeft() bool {
	return h.ClarinetLow == LeftLittle || h.ClarinetLow == AlternateLittle && h.Repeat%2 == 0
}

// spoken makes words of a fingering's bars, pluses and symbols.
func spoken(text string) string {
	return inWords.Replace(text)
}

var inWords = strings.NewReplacer(
	" | ", ", right hand ",
	"| ", "right hand ",
	"+", "and",
	"½", "half ",
	"-", " ",
	"♭", " flat",
	"♯", " sharp",
)

// Ways returns every way to finger a sounding note, the usual one first, each drawn; none
// where the tables have no entry.
func (i Instrument) Ways(m music.MIDI, h Hands) []Fingering {
	f, ok := i.Fingering(m, h)
	if !ok {
		return nil
	}
	out := []Fingering{f}
	for _, text := range f.Alternates {
		out = append(out, Fingering{Text: text, Spoken: spoken(text), Diagram: i.draw(text)})
	}
	return out
}
