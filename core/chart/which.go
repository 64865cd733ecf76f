package chart

import (
	"math"

	"earlychorus/core/exercise"
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Found is which note a pitch is, to the player of an instrument.
type Found struct {
	Note       music.MIDI            `json:"midi" doc:"the sounding note it is nearest to"`
	Written    music.Spelling        `json:"written"`
	Accidental string                `json:"accidental,omitempty" enum:"sharp,flat,natural" doc:"drawn before it, without a signature"`
	Called     string                `json:"called" doc:"as its player says it"`
	Also       string                `json:"also,omitempty" doc:"its other name, of a black key"`
	Place      string                `json:"place" doc:"where it stands on the staff, in words"`
	Cents      music.Cents           `json:"cents" doc:"from the note in tune, sharp is positive"`
	Tune       string                `json:"tune" doc:"in tune, a little flat, …"`
	Open       string                `json:"open,omitempty" doc:"which open note or partial of the tube, on brass"`
	Fingering  *instrument.Fingering `json:"fingering,omitempty" doc:"the usual one"`
	Right      bool                  `json:"right" doc:"it is the note that was looked for"`
	Mend       string                `json:"mend,omitempty" doc:"which finger differs from the note that was looked for"`
}

// inTune is how far off a long note of a beginner may lie and be called in tune: a tenth
// of a half step (common practice, no published source).
const inTune music.Cents = 10

// Which says which note a pitch is. asked is the note that was looked for; 0 is none.
func Which(i instrument.Instrument, c exercise.Conventions, pitch music.Hertz, asked music.MIDI) Found {
	note, off := music.Nearest(pitch, c.A4)
	key := exercise.WrittenKey(i)
	written := key.Spell(i.Written(note))
	out := Found{
		Note:       note,
		Written:    written,
		Accidental: music.Key(0).Accidental(written),
		Called:     c.Naming.Name(written),
		Place:      placeOf(written, string(i.Clef)),
		Cents:      music.Cents(math.Round(float64(off))),
		Tune:       tuneWord(off),
		Open:       openOf(i, note),
	}
	if i.Beginner.Contains(note) {
		out.Called = namesOf(i, c)[written]
	}
	if other, ok := written.Other(); ok {
		out.Also = c.Naming.Name(other)
	}
	if f, ok := i.Fingering(note, c.Hands(0)); ok {
		out.Fingering = &f
	}
	if asked > 0 {
		out.Right = note == asked
		if !out.Right {
			out.Mend = i.Mend(asked, note, c.Hands(0))
		}
	}
	return out
}

// namesOf is what the notes of an instrument's book are called beside one another.
func namesOf(i instrument.Instrument, c exercise.Conventions) map[music.Spelling]string {
	key := exercise.WrittenKey(i)
	var page []music.Spelling
	for m := i.Beginner.From; m <= i.Beginner.To; m++ {
		page = append(page, key.Spell(i.Written(m)))
	}
	return c.Naming.Calls(page)
}

func tuneWord(off music.Cents) string {
	way := "sharp"
	if off < 0 {
		way, off = "flat", -off
	}
	switch {
	case off <= inTune:
		return "in tune"
	case off <= 2*inTune:
		return "a little " + way
	}
	return way
}

// openOf says which open note of a brass instrument a note is, or which partial of the
// tube it lies on.
func openOf(i instrument.Instrument, note music.MIDI) string {
	if i.Family != instrument.Brass {
		return ""
	}
	for n, open := range i.OpenNotes() {
		if open == note {
			return fmt.Sprintf("open note %d, from the lowest", n+1)
		}
	}
	if p := i.PartialOf(note); p > 0 {
		return fmt.Sprintf("partial %d of its tube", p)
	}
	return ""
}

// ordinals name lines and spaces.
var ordinals = []string{"", "first", "second", "third", "fourth", "fifth"}

// placeOf says where a note stands on the staff: "second line", "just below the staff",
// "second line below the staff".
func placeOf(s music.Spelling, clef string) string {
	const steps = "CDEFGAB"
	bottom := 7*4 + 2 // E4, the lowest line of the treble clef
	if clef == "bass" {
		bottom = 7*2 + 4 // G2
	}
	at := 7*s.Octave - bottom
	for n := range steps {
		if steps[n:n+1] == s.Step {
			at += n
		}
	}
	switch {
	case at == -1:
		return "just below the staff"
	case at == 9:
		return "just above the staff"
	case at < -1:
		return beyond(-at, "below")
	case at > 9:
		return beyond(at-8, "above")
	case at%2 == 0:
		return ordinals[at/2+1] + " line"
	}
	return ordinals[at/2+1] + " space"
}

// beyond says a place outside the staff, so many steps from its outer line.
func beyond(steps int, where string) string {
	line := steps / 2
	if line >= len(ordinals) {
		return "far " + where + " the staff"
	}
	if steps%2 == 0 {
		return fmt.Sprintf("on the %s short line %s the staff", ordinals[line], where)
	}
	return fmt.Sprintf("past the %s short line %s the staff", ordinals[line], where)
}
