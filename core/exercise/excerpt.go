package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Excerpt three ways: a line of music on air, on the buzz, on the instrument.
var excerpt = Kind{
	Key:   "excerpt",
	Name:  "Excerpt three ways",
	Group: scores.Ear,
	Why:   "Air first, then lips, then the instrument: each way makes the next one easy.",
	Parts: []Param{
		{
			Key:     "melody",
			Label:   "Notes",
			Type:    Melody,
			Default: defaultMelody,
			Max:     mostOf,
			Remedy:  "give 1 to 64 notes, each up to 16 beats, from a fourth below home to an octave above it",
		},
		{
			Key:     "title",
			Label:   "Title",
			Type:    Words,
			Default: "A short line",
			Max:     AnyChars,
			Remedy:  "use at most 200 letters",
		},
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf("%s, %d notes, on air, then played", v.choice("title"), len(v.melody()))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		line := v.melody()
		w.countIn("On air alone, fingers with it.")
		w.breathe()
		w.onAir(line)
		if w.i.Family == instrument.Brass && w.c.BuzzOn != BuzzNone {
			w.rest(8, "Now buzz it.")
			w.melody(line, scores.Buzz)
		}
		w.rest(8, "Now play it.")
		w.melody(line, scores.Play)
		w.end()
		w.judge(measure.Lines, 0)
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.Timing, onTheBeat)
	},
}

var defaultMelody = []Note{
	{Degree: 0, Beats: 1},
	{Degree: 2, Beats: 1},
	{Degree: 4, Beats: 1},
	{Degree: 2, Beats: 1},
	{Degree: 0, Beats: 2},
	{Rest: true, Beats: 2},
}

// onAir is the rhythm as one segment of air: a burst a note.
func (w *writer) onAir(line []Note) {
	var all music.Beats
	bursts := 0
	for _, n := range line {
		all += n.Beats
		if !n.Rest {
			bursts++
		}
	}
	w.add(scores.Segment{
		Phase:  scores.Out,
		Beats:  all,
		Bursts: bursts,
		Text:   "The rhythm on air",
	})
}

// melody lays a line of music out for the instrument, as a whole, with its slurs, marks and
// dynamics.
func (w *writer) melody(line []Note, p scores.Phase) {
	var degrees []Degree
	for _, n := range line {
		if !n.Rest {
			degrees = append(degrees, n.Degree)
		}
	}
	sounding := w.line(degrees)
	var dynamic scores.Dynamic
	follows := false
	for _, n := range line {
		if n.Rest {
			w.add(scores.Segment{Phase: scores.Rest, Beats: n.Beats, Text: "Rest"})
			follows = false
			continue
		}
		if n.Dynamic != "" {
			dynamic = n.Dynamic
		}
		w.at(sounding[0], n.Beats, as(p), func(s *scores.Segment) {
			s.Dynamic, s.DynamicTo, s.Mark = dynamic, n.DynamicTo, n.Mark
			if n.Slur && follows {
				s.Articulation = scores.Slurred
			}
		})
		if n.DynamicTo != "" {
			dynamic = n.DynamicTo
		}
		sounding, follows = sounding[1:], true
	}
}
