package exercise

import (
	"slices"

	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// New note: the week's new note of each instrument, in small steps: heard, fingered, alone,
// and from a note that is known.
var newNote = Kind{
	Key:   KindNewNote,
	Name:  "New note",
	Group: scores.Patterns,
	Why:   "Hear it, finger it, play it. Then find it from a note you know.",
	Parts: []Param{
		number("beats", "Beats each", "beats", 2, 8, 1, 4, "hold each note 2 to 8 beats"),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("the week’s new note, %s each at %.0f", sayBeats(v.beats("beats")), v.tempo())
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn(readyText)
		for _, m := range w.newNotes() {
			w.learn(m, w.knownNear(m), v.beats("beats"))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoBreak, float64(w.s.Limits.Break))
		w.judge(measure.NoChirp, 0)
		w.judge(measure.Centre, max(patternCentre, float64(w.s.Limits.Centre)))
		w.judge(measure.Change, max(quickChange, float64(w.s.Limits.ChangeTime)))
	},
}

// learn leads from hearing a note to finding it from one that is known.
func (w *writer) learn(m, from music.MIDI, beats music.Beats) {
	const near = 2 // beats on the note that is known
	w.at(m, beats, as(scores.Listen), saying("Listen to the new note"))
	for range 2 {
		w.at(from, near, as(scores.Finger))
		w.at(m, near, as(scores.Finger))
	}
	w.breathe()
	w.at(m, beats)
	w.rest(4, "Rest.")
	w.at(m, beats)
	for range 2 {
		w.rest(4, "Rest.")
		w.at(from, near)
		w.at(m, beats)
	}
}

// newNotes are the player's own; where nothing is new, the one that comes next, so that the
// step can be looked at.
func (w *writer) newNotes() []music.MIDI {
	if len(w.player.New) > 0 {
		return w.player.New
	}
	return NextNotes(w.i, w.player.Known)[:1]
}

// knownNear is the known note that lies nearest, the lower of two.
func (w *writer) knownNear(m music.MIDI) music.MIDI {
	known := w.player.Known
	if len(known) == 0 {
		known = w.i.FirstFive[:]
	}
	near := w.i.Home()
	for _, k := range known {
		if k != m && (near == m || apart(k, m) < apart(near, m)) {
			near = k
		}
	}
	return near
}

func apart(a, b music.MIDI) music.MIDI { return max(a-b, b-a) }

// teachingOrder are degrees from home in the order in which a band meets them after the first
// five: the scale up, the scale down, then the notes with accidentals (common practice, no
// published source).
var teachingOrder = []Degree{9, -1, 11, 12, -3, 10, 6, 3, -5, 8, 1, -2, -4}

// NextNotes are the sounding notes that an instrument learns next, in order; at least one. A
// degree is taken in the octave that the instrument has.
func NextNotes(i instrument.Instrument, known []music.MIDI) (out []music.MIDI) {
	if len(known) == 0 {
		known = i.FirstFive[:]
	}
	add := func(m music.MIDI) {
		if i.Beginner.Contains(m) && !slices.Contains(known, m) && !slices.Contains(out, m) {
			out = append(out, m)
		}
	}
	for _, d := range teachingOrder {
		add(i.Home() + music.MIDI(d))
	}
	for m := i.Home(); m <= i.Beginner.To; m++ {
		add(m)
	}
	for m := i.Home(); m >= i.Beginner.From; m-- {
		add(m)
	}
	if len(out) == 0 { // all are known
		out = append(out, i.Home())
	}
	return out
}
