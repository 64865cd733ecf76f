package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Ladder: one rung of a way into a hard note. Which rung, the ladder's own state
// says.
var ladderRung = Kind{
	Key:   KindLadder,
	Name:  "Ladder",
	Group: scores.Registers,
	Why:   "A hard note is reached from one that works, a small step at a time.",
	Parts: []Param{ladderChoice(), number("rung", "Rung", "", 1, 40, 1, 1, "choose a rung of the ladder"), tempo(60)},
	Says: func(v Values) string {
		l, _ := LadderOf(v.choice("ladder"))
		return fmt.Sprintf("%s, rung %d", l.Name, v.count("rung"))
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		l, _ := LadderOf(v.choice("ladder"))
		if l.Suits != nil && !l.Suits(w.i) {
			w.notice(fmt.Sprintf("%s has no use for %s: it holds its home note.", w.i.Name, l.Name))
			l = homeLadder
		}
		rungs := l.Rungs(w.i)
		rung := v.count("rung")
		if own := w.player.Rungs[l.Key]; own > 0 {
			rung = own
		}
		rung = min(rung, len(rungs))
		r := rungs[rung-1]
		if l.Key != homeLadder.Key {
			w.s.Ladder, w.s.Rung = l.Key, rung
		}
		w.s.Crossing = l.Crossing
		w.countIn(r.Text)
		w.breathe()
		for n, m := range r.Notes {
			w.at(m, r.Beats[n], func(s *scores.Segment) {
				if n > 0 && r.Slurred {
					s.Articulation = scores.Slurred
				}
			})
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoBreak, float64(w.s.Limits.Break))
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.Held, w.s.Limits.HeldRatio)
		w.judge(measure.NoChirp, 0)
		w.judge(measure.Response, float64(w.s.Limits.Start))
	},
}

func ladderChoice() Param {
	var options []Option
	for _, l := range Ladders() {
		options = append(options, Option{l.Key, l.Name})
	}
	return choice("ladder", "Ladder", options[0].Key, options...)
}

// LadderKey returns whose rung a step is; "" for a step that is none.
func (s Step) LadderKey() string {
	key, _ := s.Values["ladder"].(string)
	return key
}
