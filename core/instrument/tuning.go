package instrument

import (
	"math"
	"strconv"
	"strings"

	"earlychorus/core/music"
)

// SpeedOfSound returns that of dry air in m/s: 331.3·√(1 + T/273.15), T in °C.
func SpeedOfSound(celsius float64) float64 { return 331.3 * math.Sqrt(1+celsius/273.15) }

// AirCelsius is the usual temperature of the air in a warm instrument, between
// the breath's and the room's (common practice, no published source).
const AirCelsius = 27

// Tendency is how far a sounding note lies above equal temperament by the
// tube's own physics: its partial's place in the series, and for valves the
// length that combinations lack. It is 0 for woodwinds, whose holes are cut for
// every note, and for slides beyond the partial, since a slide can be moved.
func (i Instrument) Tendency(m music.MIDI) music.Cents {
	return i.TendencyOf(m, "")
}

// TendencyOf is Tendency for a note that is fingered in a way of its own: a fourth valve,
// cut for the fourth that it lowers, leaves none of what 1-3 lack. fingering is its text;
// "" the usual one.
func (i Instrument) TendencyOf(m music.MIDI, fingering string) music.Cents {
	if i.tube == nil {
		return 0
	}
	partial, lowered, ok := i.tube.find(m)
	if !ok {
		return 0
	}
	off := OfPartial(partial)
	if i.tube.valves > 0 && !strings.Contains(fingering, "4") {
		off += ValveSharpness(valveDigits(valves[lowered]))
	}
	return off
}

// OfPartial returns how far the n-th partial lies above the nearest
// equal-tempered note: 1200·log₂(n), less whole semitones.
func OfPartial(n int) music.Cents {
	exact := 1200 * math.Log2(float64(n))
	return music.Cents(exact - 100*math.Round(exact/100))
}

func valveDigits(text string) string {
	digits := ""
	for _, r := range text {
		if r >= '1' && r <= '4' {
			digits += string(r)
		}
	}
	return digits
}

// leastTendency is the smallest tendency worth telling a player.
const leastTendency music.Cents = 7

// TendencyAdvice says what a note tends to and how it is met, or "" where there
// is nothing to say.
func (i Instrument) TendencyAdvice(m music.MIDI) string {
	off := i.Tendency(m)
	if off > -leastTendency && off < leastTendency {
		return ""
	}
	way := "sharp"
	meet := "let it down with a relaxed lip"
	if i.tube.valveSlides {
		meet += ", or move the slide of the third or first valve out a little"
	}
	if off < 0 {
		way, meet = "flat", "lift it with faster air and firm corners"
	}
	if i.tube.valves == 0 {
		_, lowered, _ := i.tube.find(m)
		switch {
		case off > 0:
			meet = "move the slide out a little"
		case lowered == 0:
			meet = "it cannot go in any farther: lift it with the air"
		default:
			meet = "move the slide in a little"
		}
	}
	return "This note tends " + way + " by " + centsInWords(off) + ": " + meet + "."
}

func centsInWords(c music.Cents) string {
	return strconv.Itoa(int(math.Round(math.Abs(float64(c))))) + " cents"
}

// Move is a first estimate of how to tune: which part, and how far out
// (negative: in). It is to be tried, then checked.
type Move struct {
	Part        string  `json:"part"`
	Millimetres float64 `json:"out_mm" doc:"negative: push in"`
}

// MoveToTune returns how far to move what tunes an instrument so that note m,
// which sounds so far from its target, is in tune, in air of the given
// temperature. The sounding length is c/2f for an open tube, c/4f for a clarinet,
// and n·c/2f for the whole of a brass tube on its n-th partial; a tuning slide
// changes the tube by twice its travel.
func (i Instrument) MoveToTune(m music.MIDI, off music.Cents, a4 music.Hertz, celsius float64) Move {
	length := SpeedOfSound(celsius) / (2 * float64(m.Frequency(a4)))
	travel := 1. // of the moved part, as a share of the change in length
	switch {
	case i.tube != nil:
		partial, _, ok := i.tube.find(m)
		if !ok {
			partial = 1
		}
		length *= float64(partial)
		travel = 0.5
	case i.Family == Clarinets:
		length /= 2
		if i.isOverblown(m) {
			length *= 3 // a twelfth up on the same tube
		}
	case i.isOverblown(m):
		length *= 2 // an octave up on the same tube
	}
	change := length * (math.Exp2(float64(off)/1200) - 1) // sharp: the tube must grow by that share
	return Move{i.Tunes, 1000 * change * travel}
}

// TuningAdvice says how far to move what, in words, and no farther than the part allows;
// "" when it is not worth it.
func (i Instrument) TuningAdvice(m music.MIDI, off music.Cents, a4 music.Hertz) string {
	move := i.MoveToTune(m, off, a4, AirCelsius)
	mm := math.Round(math.Abs(move.Millimetres))
	switch {
	case mm < 1:
		return ""
	case i.Tunes == "":
		return i.TunesElse
	}
	way, far := "out", ", then check again."
	if move.Millimetres < 0 {
		way = "in"
	}
	if mm > i.TunesMost {
		mm = i.TunesMost
		far = ", no farther. Warm up, check again, and if it is still off, ask."
	}
	return "Move the " + move.Part + " " + way + " by about " + strconv.Itoa(int(mm)) + " mm" + far
}

// RegisterPair returns the note that the register mechanism gives from a low
// one, and whether there is one: a twelfth on clarinets, an octave on other
// woodwinds.
func (i Instrument) RegisterPair(low music.MIDI) (upper music.MIDI, ok bool) {
	if i.Overblow == 0 || i.isOverblown(low) {
		return 0, false
	}
	upper = low + music.MIDI(i.Overblow)
	return upper, i.isOverblown(upper) && i.Beginner.Contains(upper) && i.onlyPinches(low, upper)
}

// onlyPinches reports whether the upper note is the low one with nothing but the thumb
// changed: on recorders some pairs move other fingers too, and are no pair to a beginner.
func (i Instrument) onlyPinches(low, upper music.MIDI) bool {
	if i.Family != Recorders {
		return true
	}
	down, ok := i.chart(i, i.Written(low))
	pinched, has := i.chart(i, i.Written(upper))
	return ok && has && strings.TrimPrefix(down, "T") == strings.TrimPrefix(pinched, "½T")
}

// OpenNotes returns the notes of the beginner range that a brass instrument
// plays without valves or in first position, from low to high.
func (i Instrument) OpenNotes() (out []music.MIDI) {
	if i.tube == nil {
		return nil
	}
	for _, p := range series(i.tube.fundamental, 1) {
		if p.Number > 1 && p.Number != 7 && i.Beginner.Contains(p.Note) {
			out = append(out, p.Note)
		}
	}
	return out
}

// Overtones returns partials 2 to 5 of a saxophone's lowest fingering: the
// overtones that are practised on it. The first result is the fingered note.
func (i Instrument) Overtones() (fingered music.MIDI, overtones []music.MIDI) {
	fingered = 58 - music.MIDI(i.Transposition) // written low B♭3
	for _, p := range series(fingered, 1)[1:5] {
		overtones = append(overtones, p.Note)
	}
	return fingered, overtones
}
