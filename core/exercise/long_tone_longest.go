package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Long tone, longest: a note as long as it stays beautiful, against one's own
// best.
var longToneLongest = Kind{
	Key:    KindLongToneLongest,
	Name:   "Long tone, longest",
	Group:  scores.LongTones,
	Breath: stage4Cap,
	Why:    "One beat more than yesterday is progress.",
	Parts: []Param{
		notes("Concert notes, in order", 3, 0),
		writtenNotes(3),
		number("cap_s", "At most", "seconds", 10, 45, 1, 30, "stop at 10 to 45 seconds"),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s, as long as it stays beautiful, at most %.0f seconds",
			saysNotes(v),
			v.number("cap_s"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.Growing = true
		w.s.TempoBPM = 60
		most := music.Beats(min(v.number("cap_s"), mostHold(w.stage)))
		w.countIn(readyText)
		for n, m := range w.apart(v) {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(longRest, "Rest. Breathe as you like.")
			}
			w.at(m, most)
		}
		w.end()
		l := w.s.Limits
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoBreak, float64(l.Break))
		w.judge(measure.NoGap, float64(l.Gap))
		w.judge(measure.Centre, float64(l.Centre))
		w.judge(measure.PitchEnds, float64(l.Drift))
		w.judge(measure.Steadiness, float64(l.Waver))
		w.judge(measure.LevelEnds, float64(l.Level))
		w.judge(measure.NoChirp, 0)
		w.judge(measure.Response, float64(l.Start))
		w.judge(measure.HoldTime, holdWanted(w.player))
	},
}

const longRest music.Beats = 12

const (
	firstHold  = 8.  // seconds: a first long tone (common practice)
	youngHold  = 5.  // in the first weeks
	nearBest   = 0.9 // of one's own best is as good
	longestCap = 30. // seconds; at stage 4, 45
	stage4Cap  = 45.
)

func mostHold(s scores.Stage) float64 {
	if s >= 4 {
		return stage4Cap
	}
	return longestCap
}

// holdWanted is how long the note should last: within a tenth of one's own best.
func holdWanted(p Player) float64 {
	switch {
	case p.Best > 0:
		return nearBest * min(p.Best, mostHold(p.Stage))
	case p.Stage <= 1:
		return youngHold
	}
	return firstHold
}
