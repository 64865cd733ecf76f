package exercise

import (
	"slices"
	"strings"

	"earlychorus/core/fmt"
	"earlychorus/core/music"
)

// The notes of a step come from its concert degrees, or from written notes that the
// director picked for one section. A line of notes moves as a whole: no instrument
// breaks it across octaves.

// apart returns the notes that a step asks for one by one, each placed by itself.
func (w *writer) apart(v Values) []music.MIDI {
	if own, ok := w.picked(v); ok {
		return own
	}
	w.pattern = v.notes()
	out := make([]music.MIDI, len(w.pattern))
	for n, d := range w.pattern {
		at := w.place(d)
		if at.notice != "" {
			w.notice(at.notice)
		}
		out[n] = at.note
	}
	return out
}

// inARow returns the notes that a step asks for as one line.
func (w *writer) inARow(v Values) []music.MIDI {
	if own, ok := w.picked(v); ok {
		return own
	}
	return w.line(v.notes())
}

// picked returns the written notes that were picked for a section, where the instrument
// has them all.
func (w *writer) picked(v Values) ([]music.MIDI, bool) {
	names := v.written()
	if len(names) == 0 {
		return nil, false
	}
	out := make([]music.MIDI, len(names))
	for n, name := range names {
		note, _ := music.ReadNote(name) // checked when the step was read
		out[n] = note.MIDI() - music.MIDI(w.i.Transposition)
		if !w.i.Beginner.Contains(out[n]) {
			w.notice(fmt.Sprintf("%s has no written %s: it plays the concert notes.", w.i.Name, name))
			return nil, false
		}
	}
	w.beyond = true
	return out, true
}

// saysNotes is which notes a step asks for, in a director's words.
func saysNotes(v Values) string {
	if names := v.written(); len(names) > 0 {
		return "written " + strings.Join(names, " then ")
	}
	return "concert " + concertNames(v.notes())
}

// octavesAway are where a line may lie, the nearest first.
var octavesAway = []Degree{0, -12, 12}

// line places a line of degrees as a whole: at home, or an octave away, and where no
// octave reaches all of it, each note outside on the nearest of the line's own notes
// inside.
func (w *writer) line(degrees []Degree) []music.MIDI {
	w.pattern = degrees
	octave, whole := w.octaveOf(degrees)
	w.noticeOctave(octave)
	out := make([]music.MIDI, len(degrees))
	for n, d := range degrees {
		out[n] = w.sounding(d + octave)
		if whole || w.reaches(out[n]) {
			continue
		}
		instead := w.nearestInside(degrees, d, octave)
		out[n] = w.sounding(instead)
		w.notice(fmt.Sprintf("%s plays concert %s instead of %s, which lies outside %s.",
			w.i.Name, instead.ConcertName(), d.ConcertName(), w.outside(w.sounding(d+octave))))
	}
	return out
}

// turning places a pattern as a whole; where no octave reaches all of it, it turns
// round at the last note inside, so that it is the same pattern, shorter.
func (w *writer) turning(degrees []Degree) []music.MIDI {
	octave, whole := w.octaveOf(degrees)
	if whole {
		return w.line(degrees)
	}
	out := []music.MIDI{}
	skipped := false
	for _, d := range degrees {
		note := w.sounding(d + octave)
		switch {
		case !w.reaches(note):
			skipped = true
			continue
		case skipped && len(out) > 0 && out[len(out)-1] == note:
		default:
			out = append(out, note)
		}
		skipped = false
	}
	if len(out) < 2 { // hardly a pattern: the nearest notes keep its shape
		return w.line(degrees)
	}
	w.noticeOctave(octave)
	w.notice(fmt.Sprintf("%s turns round at the last note it reaches: the rest lies outside %s.",
		w.i.Name, w.outside(w.firstOutside(degrees, octave))))
	return out
}

func (w *writer) sounding(d Degree) music.MIDI { return w.i.Home() + music.MIDI(d) }

// octaveOf is the octave in which most of a line is reached, the nearest of those;
// whole is whether all of it is.
func (w *writer) octaveOf(degrees []Degree) (octave Degree, whole bool) {
	most := -1
	for _, o := range octavesAway {
		inside := 0
		for _, d := range degrees {
			if w.reaches(w.sounding(d + o)) {
				inside++
			}
		}
		if inside > most {
			octave, most = o, inside
		}
	}
	return octave, most == len(degrees)
}

// nearestInside is the degree of the line, in its octave, that lies nearest to d and is
// reached; home where none is.
func (w *writer) nearestInside(degrees []Degree, d, octave Degree) Degree {
	best, found := Degree(0), false
	for _, other := range degrees {
		at := other + octave
		if w.reaches(w.sounding(at)) && (!found || distance(at, d+octave) < distance(best, d+octave)) {
			best, found = at, true
		}
	}
	return best
}

func (w *writer) firstOutside(degrees []Degree, octave Degree) music.MIDI {
	n := slices.IndexFunc(degrees, func(d Degree) bool { return !w.reaches(w.sounding(d + octave)) })
	return w.sounding(degrees[max(0, n)] + octave)
}

func (w *writer) noticeOctave(octave Degree) {
	switch {
	case octave < 0:
		w.notice(fmt.Sprintf("%s plays it an octave lower, where this stage reaches.", w.i.Name))
	case octave > 0:
		w.notice(fmt.Sprintf("%s plays it an octave higher, where this stage reaches.", w.i.Name))
	}
}
