// Package chart is an instrument's book of fingerings: every note of its range with every
// way to finger it, drawn, as a player of a class looks it up.
package chart

import (
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Chart is a book of fingerings.
type Chart struct {
	Instrument string  `json:"instrument" doc:"its name"`
	Clef       string  `json:"clef" enum:"treble,bass"`
	EarsFirst  bool    `json:"ears_first,omitempty" doc:"the class hides the tuner until it is asked for"`
	Drones     []Drone `json:"drones" doc:"a low note of each name, home first, to sound under one's own" nullable:"false"`
	Notes      []Note  `json:"notes" nullable:"false" doc:"from the lowest"`
}

// Drone is a low note that is held.
type Drone struct {
	Called string      `json:"called" doc:"as its player says it"`
	Pitch  music.Hertz `json:"hz"`
}

// dronesOf are a drone of each of the twelve names, from home up.
func dronesOf(i instrument.Instrument, c exercise.Conventions) []Drone {
	key := exercise.WrittenKey(i)
	out := []Drone{}
	for m := i.Home(); m < i.Home()+12; m++ {
		out = append(out, Drone{c.Naming.Name(key.Spell(i.Written(m))), scores.DroneFor(m.Frequency(c.A4))})
	}
	return out
}

// Note is one note of it.
type Note struct {
	Written     music.Spelling         `json:"written"`
	Note        music.MIDI             `json:"midi" doc:"the sounding note"`
	WrittenName string                 `json:"written_name" doc:"as the class calls it"`
	Called      string                 `json:"called" doc:"as its player says it, beside the others of the book"`
	Accidental  string                 `json:"accidental,omitempty" enum:"sharp,flat,natural" doc:"drawn before it, without a signature"`
	Also        string                 `json:"also,omitempty" doc:"its other name, of a black key"`
	Concert     string                 `json:"concert" doc:"what sounds"`
	Hertz       music.Hertz            `json:"hz" doc:"at the class's tuning"`
	Place       string                 `json:"place" doc:"where it stands on the staff, in words"`
	Ways        []instrument.Fingering `json:"ways" nullable:"false" doc:"the usual one first; none: ask your director"`
	First       bool                   `json:"first" doc:"one of the first five"`
	Hard        bool                   `json:"hard" doc:"counted as tried at first"`
	Tendency    string                 `json:"tendency,omitempty" doc:"where it tends to, and how it is met"`
	Upper       bool                   `json:"upper" doc:"in the upper register"`
}

// Of returns the book of an instrument as it is built, in a class's names and schools.
func Of(i instrument.Instrument, c exercise.Conventions) Chart {
	out := Chart{
		Instrument: i.Name,
		Clef:       string(i.Clef),
		EarsFirst:  c.EarsFirst(),
		Drones:     dronesOf(i, c),
		Notes:      []Note{},
	}
	key, sounding := exercise.WrittenKey(i), exercise.SoundingKey(i)
	names := namesOf(i, c)
	for m := i.Beginner.From; m <= i.Beginner.To; m++ {
		written := key.Spell(i.Written(m))
		n := Note{
			Written:     written,
			Note:        m,
			Called:      names[written],
			Place:       placeOf(written, string(i.Clef)),
			Accidental:  music.Key(0).Accidental(written),
			WrittenName: c.Naming.WithOctave(written),
			Concert:     c.Naming.WithOctave(sounding.Spell(m)),
			Hertz:       m.Frequency(c.A4),
			Ways:        append([]instrument.Fingering{}, i.Ways(m, c.Hands(0))...),
			Hard:        c.IsHard(i, m),
			Tendency:    i.TendencyAdvice(m),
			Upper:       i.PartialOf(m) > 1 && i.Family != instrument.Brass,
		}
		if other, ok := written.Other(); ok {
			n.Also = c.Naming.Name(other)
		}
		for _, first := range i.FirstFive {
			n.First = n.First || first == m
		}
		out.Notes = append(out.Notes, n)
	}
	return out
}
