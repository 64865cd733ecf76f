package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Buzz slide: the pitch slides without a dead spot.
var buzzSlide = Kind{
	Key:   "buzz-slide",
	Name:  "Buzz slide",
	Group: scores.Buzzing,
	Suits: isBrass,
	Why:   "Slide between notes until the ear is sure of both.",
	Parts: []Param{
		number(
			"from",
			"From",
			"half steps from home",
			-5,
			12,
			1,
			7,
			"begin from a fourth below home to an octave above it",
		),
		number("to", "To", "half steps from home", -5, 12, 1, 0, "end from a fourth below home to an octave above it"),
		number("beats", "Beats", "beats", 2, 8, 1, 4, "slide for 2 to 8 beats"),
		repeats(2, 6),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"concert %s to %s in %.0f beats, %d times",
			Degree(v.number("from")).ConcertName(),
			Degree(v.number("to")).ConcertName(),
			v.beats("beats"),
			v.count("repeats"),
		)
	},
	Check: func(v Values) error {
		if distance(Degree(v.number("from")), Degree(v.number("to"))) < leastSlide {
			return ParameterError{"to", "slide at least three half steps"}
		}
		return nil
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.pattern = []Degree{Degree(v.number("from")), Degree(v.number("to"))}
		from, to := w.place(w.pattern[0]), w.place(w.pattern[1])
		for _, p := range []placed{from, to} {
			if p.notice != "" {
				w.notice(p.notice)
			}
		}
		if from.note == to.note { // the stage leaves no way to go
			to.note = w.i.Home() + music.MIDI(leastSlide)
		}
		w.countIn(w.mouthpiece())
		if w.c.BuzzMove == StraightMove {
			w.straight(from.note, to.note, v)
			return
		}
		for n := range v.count("repeats") {
			w.restAfterBuzz(n, v.beats("beats"))
			w.at(from.note, v.beats("beats"), as(scores.Buzz), glidingTo(to.note), saying("Slide"))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.DeadSpot, longestDead)
		w.judge(measure.Travel, leastTravel)
	},
}

// straight is the same way for classes that go straight to the note: half of the
// beats on each.
func (w *writer) straight(from, to music.MIDI, v Values) {
	w.notice("This class goes straight to the note: no slide between.")
	each := v.beats("beats") / 2
	for n := range v.count("repeats") {
		w.restAfterBuzz(n, v.beats("beats"))
		w.at(from, each, as(scores.Buzz))
		w.at(to, each, as(scores.Buzz), slurred)
	}
	w.end()
	w.judge(measure.Speaks, 0)
	w.judge(measure.RightNote, 0)
	w.judge(measure.Landing, buzzLands)
	w.judge(measure.Settle, landsWithin)
}

const leastSlide Degree = 3

const (
	longestDead = 0.08 // s
	leastTravel = 0.8  // of the way
)
