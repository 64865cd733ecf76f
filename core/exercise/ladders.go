package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Ladder is an ordered way into a hard note: for each neighbouring pair on the
// way, a–b–a, then from a to b held as long as possible, then b alone.
type Ladder struct {
	Key      string
	Name     string
	Suits    func(instrument.Instrument) bool
	Slurred  bool // always from a note that works
	Tongued  bool // every note, as the way is usually taught
	Crossing bool // over the register break
	// pairs lists the way, easy note first, in written notes or open partials.
	pairs func(instrument.Instrument) [][2]music.MIDI // sounding
}

// Rung is one step of a ladder.
type Rung struct {
	Notes   []music.MIDI // sounding
	Beats   []music.Beats
	Slurred bool
	Text    string
}

const (
	rungBeats music.Beats = 2
	rungHeld  music.Beats = 8
)

// Rungs lists a ladder's rungs for an instrument, from the first.
func (l Ladder) Rungs(i instrument.Instrument) []Rung {
	var out []Rung
	calls := music.English.Calls(l.notes(i))
	name := func(m music.MIDI) string { return calls[WrittenKey(i).Spell(i.Written(m))] }
	for _, p := range l.pairs(i) {
		a, b := p[0], p[1]
		out = append(
			out,
			Rung{
				[]music.MIDI{a, b, a},
				[]music.Beats{rungBeats, rungBeats, rungBeats},
				true,
				fmt.Sprintf("%s to %s and back", name(a), name(b)),
			},
			Rung{
				[]music.MIDI{a, b},
				[]music.Beats{rungBeats, rungHeld},
				true,
				fmt.Sprintf("%s to %s, and stay", name(a), name(b)),
			},
		)
		if !l.Slurred {
			out = append(out, Rung{[]music.MIDI{b}, []music.Beats{rungHeld}, false, name(b) + " alone"})
		}
	}
	return out
}

// notes are all the notes of a ladder as they are read: beside them each has its name.
func (l Ladder) notes(i instrument.Instrument) (out []music.Spelling) {
	for _, p := range l.pairs(i) {
		out = append(out, WrittenKey(i).Spell(i.Written(p[0])), WrittenKey(i).Spell(i.Written(p[1])))
	}
	return out
}

// Ladders lists the ready ladders (common practice, no published source).
func Ladders() []Ladder {
	family := func(f instrument.Family) func(instrument.Instrument) bool {
		return func(i instrument.Instrument) bool { return i.Family == f }
	}
	is := func(key string) func(instrument.Instrument) bool {
		return func(i instrument.Instrument) bool { return i.Key == key }
	}
	return []Ladder{
		{
			Key:     "sax-low",
			Name:    "Low notes on the saxophone",
			Suits:   family(instrument.Saxophones),
			Tongued: true,
			pairs:   written(67, 66, 64, 62),
		},
		{
			Key:     "bassoon-low",
			Name:    "Low notes on the bassoon",
			Suits:   is("bassoon"),
			Slurred: true,
			pairs:   written(41, 40, 38, 36, 35, 34),
		},
		{
			Key:   "tuba-low",
			Name:  "Low notes on the tuba",
			Suits: is("tuba"),
			pairs: written(34, 33, 31, 29),
		},
		{
			Key:      "clarinet-break",
			Name:     "Over the clarinet's break",
			Suits:    family(instrument.Clarinets),
			Crossing: true,
			pairs:    overTheBreak,
		},
		{
			Key:   "open-two",
			Name:  "Two of three open notes",
			Suits: isBrass,
			pairs: func(i instrument.Instrument) [][2]music.MIDI { return openPairs(i)[:1] },
		},
		{
			Key:   "brass-partials",
			Name:  "Open notes on brass",
			Suits: isBrass,
			pairs: openPairs,
		},
		{
			Key:   "slide-positions",
			Name:  "Seven slide positions",
			Suits: is("trombone"),
			pairs: written(53, 52, 51, 50, 49, 48, 47),
		},
	}
}

// homeLadder is what an instrument plays where a ladder is not for it.
var homeLadder = Ladder{Key: "home", Name: "Home", pairs: func(i instrument.Instrument) [][2]music.MIDI {
	return [][2]music.MIDI{{i.Home(), i.Home() + 2}}
}}

// LadderOf returns the ladder with the given key; ok is false for an unknown one.
func LadderOf(key string) (Ladder, bool) {
	for _, l := range Ladders() {
		if l.Key == key {
			return l, true
		}
	}
	return homeLadder, false
}

// written is a way of written notes, each paired with the next.
func written(notes ...music.MIDI) func(instrument.Instrument) [][2]music.MIDI {
	return func(i instrument.Instrument) (out [][2]music.MIDI) {
		for n := 1; n < len(notes); n++ {
			out = append(
				out,
				[2]music.MIDI{notes[n-1] - music.MIDI(i.Transposition), notes[n] - music.MIDI(i.Transposition)},
			)
		}
		return out
	}
}

// overTheBreak: low C4 down to G3, then with the key; F3, then E3 with the key;
// then down, up and across.
func overTheBreak(i instrument.Instrument) [][2]music.MIDI {
	w := func(m music.MIDI) music.MIDI { return m - music.MIDI(i.Transposition) }
	return [][2]music.MIDI{
		{w(60), w(55)}, {w(55), w(74)}, {w(53), w(72)}, {w(52), w(71)}, {w(67), w(71)},
	}
}

// RungFrom returns the first rung that begins on a written note which works already;
// 1 where none does.
func (l Ladder) RungFrom(i instrument.Instrument, note music.MIDI) int {
	for n, r := range l.Rungs(i) {
		if i.Written(r.Notes[0]) == note {
			return n + 1
		}
	}
	return 1
}

// openPairs: two of three open notes first, then all three.
func openPairs(i instrument.Instrument) (out [][2]music.MIDI) {
	open := i.OpenNotes()
	for n := 1; n < min(3, len(open)); n++ {
		out = append(out, [2]music.MIDI{open[n-1], open[n]})
	}
	return out
}
