package exercise

import (
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Tuning note: the class's own, held, with an estimate of what to move.
var tuningNote = Kind{
	Key:   KindTuningNote,
	Name:  "Tuning note",
	Group: scores.LongTones,
	Why:   "Tune again at each warm-up: pitch rises as the instrument warms.",
	Parts: []Param{number("beats", "Beats", "beats", 4, 12, 1, 8, "hold it for 4 to 12 beats"), tempo(60)},
	Says:  func(Values) string { return "the class's tuning note, held" },
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn("Blow warm air through first.")
		w.breathe()
		w.at(w.tuningNote(), v.beats("beats"))
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.Centre, tunedWithin)
		w.judge(measure.Drift, tunedDrift)
		w.judge(measure.HoldTime, tunedFor)
		w.judge(measure.PitchEnds, float64(w.s.Limits.Drift))
		w.judge(measure.LevelEnds, float64(w.s.Limits.Level))
		w.judge(measure.Response, float64(w.s.Limits.Start))
	},
}

const (
	tunedWithin = 10. // cents
	tunedDrift  = 4.  // cents a second
	tunedFor    = 3.  // seconds
)

var tuningClasses = map[TuningNote]music.MIDI{"Bb": 10, "A": 9, "F": 5, "C": 0}

// tuningNote is the class's tuning note where the instrument plays it: the first above
// home, or the octave below where that one is over the break, or is not reached yet.
func (w *writer) tuningNote() music.MIDI {
	class, ok := tuningClasses[w.c.TuningNote]
	if !ok || w.c.TuningNote == OwnTuningNote {
		return w.i.Tuning
	}
	up := w.i.Home() + (class-w.i.Home()%12+12)%12
	below := up - 12
	switch inReach := w.stage.Span(w.i).Contains; {
	case inReach(up) && w.i.IsEarly(up):
		return up
	case inReach(below) && w.i.IsEarly(below):
		return below
	case inReach(up):
		return up
	}
	return below
}
