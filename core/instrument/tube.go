package instrument

import (
	"math"

	"earlychorus/core/music"
)

// tube is a brass instrument's plumbing.
type tube struct {
	fundamental music.MIDI // first partial of the open tube, sounding
	valves      int        // 0 for a slide
	valveSlides bool       // those of the first and third valve are moved while playing
}

// Partial is one of the notes a tube gives with one fingering.
type Partial struct {
	Number int         // 1 is the fundamental
	Note   music.MIDI  // nearest equal-tempered note, sounding
	Off    music.Cents // how far the partial lies above Note
}

// highestPartial bounds the series worth naming to a beginner.
const highestPartial = 12

// Partials returns the notes that one fingering may jump between, from the
// lowest, for the fingering that gives sounding note m. A brass tube and an
// overblown flute, oboe or saxophone give every harmonic, a clarinet the odd
// ones (its register key leads a twelfth up). Empty when m has no fingering.
func (i Instrument) Partials(m music.MIDI) []Partial {
	if i.tube != nil {
		n, lowered, ok := i.tube.find(m)
		if !ok || n == 0 {
			return nil
		}
		return series(i.tube.fundamental-music.MIDI(lowered), 1)
	}
	base := m
	if i.isOverblown(m) {
		base -= music.MIDI(i.Overblow)
	}
	step := 1
	if i.Overblow == 19 {
		step = 2
	}
	return series(base, step)
}

// PartialOf returns which partial of its fingering a sounding note is: 1 for a
// fundamental, 2 for an overblown octave, 3 for a twelfth; 0 when m has no
// fingering.
func (i Instrument) PartialOf(m music.MIDI) int {
	for _, p := range i.Partials(m) {
		if p.Note == m {
			return p.Number
		}
	}
	return 0
}

func series(fundamental music.MIDI, step int) []Partial {
	var out []Partial
	for n := 1; n <= highestPartial; n += step {
		exact := 12 * math.Log2(float64(n))
		semis := math.Round(exact)
		out = append(out, Partial{n, fundamental + music.MIDI(semis), music.Cents(100 * (exact - semis))})
	}
	return out
}

// IsEarly reports whether m is a note of the first register that beginners are held to:
// where they tune, and begin.
func (i Instrument) IsEarly(m music.MIDI) bool {
	return i.Beginner.Contains(m) && !i.isOverblown(m) && !i.IsHard(m)
}

// isOverblown reports whether m is fingered in the second register.
func (i Instrument) isOverblown(m music.MIDI) bool {
	written := i.Written(m)
	switch i.Family {
	case Clarinets:
		return written >= 71 // B4, the first note over the break
	case Recorders:
		return m >= i.Beginner.From+16 // the first pinched note
	default:
		switch i.Key {
		case "bassoon":
			return written >= 54 // F♯3, its first half hole
		case "oboe", "english-horn":
			return written >= 73 // C♯5, likewise
		}
		return written >= 74 // D5
	}
}

// find returns the partial and the semitones of added tube that give m: the
// shortest tube wins. The seventh partial, too flat to use, is passed over.
func (t tube) find(m music.MIDI) (partial, lowered int, ok bool) {
	lowered = 7
	for _, p := range series(t.fundamental, 1) {
		if p.Number == 1 || p.Number == 7 || p.Number == 11 {
			continue
		}
		if k := int(p.Note - m); k >= 0 && k < lowered {
			partial, lowered, ok = p.Number, k, true
		}
	}
	return partial, lowered, ok
}

// valveSemitones is what each valve lowers the open tube by.
var valveSemitones = map[rune]float64{'1': 2, '2': 1, '3': 3}

// ValveSharpness returns how sharp a combination of valves ("13") sounds when
// each valve is cut exactly for its own semitones: together they add too
// little tube. Each valve v adds (2^(v/12) − 1) of the open length.
func ValveSharpness(combination string) music.Cents {
	var added, semis float64
	for _, v := range combination {
		semis += valveSemitones[v]
		added += math.Exp2(valveSemitones[v]/12) - 1
	}
	return music.Cents(100*semis - 1200*math.Log2(1+added))
}
