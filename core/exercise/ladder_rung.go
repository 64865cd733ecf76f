package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Ladder: one rung of a way into a hard note. Which rung, the ladder's own state
// says.
var ladderRung = Kind{
	Key:   KindLadder,
	Name:  "Ladder",
	Group: scores.Registers,
	Why:   "Reach a hard note from one that works, step by step.",
	Parts: []Param{
		ladderChoice(),
		number("rung", "Rung", "", 1, 40, 1, 1, "choose a rung of the ladder"),
		writtenStart(),
		choice(
			"join",
			"Notes of a rung",
			"usual",
			Option{"usual", "as the ladder is usually taught"},
			Option{"slurred", "slurred"},
			Option{"tongued", "tongued, every one"},
		),
		tempo(60),
	},
	Says: func(v Values) string {
		l, _ := LadderOf(v.choice("ladder"))
		if start := v.written(); len(start) > 0 {
			return fmt.Sprintf("%s, from %s", l.Name, start[0])
		}
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
		w.beside = l.notes(w.i)
		rung := v.count("rung")
		if start := v.written(); len(start) > 0 {
			note, _ := music.ReadNote(start[0]) // checked when the step was read
			rung = l.RungFrom(w.i, note.MIDI())
		}
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
				if n > 0 && r.Slurred && isJoined(l, v.choice("join")) {
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

// isJoined reports whether the notes of a rung are slurred.
func isJoined(l Ladder, how string) bool {
	if how == "usual" {
		return !l.Tongued
	}
	return how == "slurred"
}

// writtenStart is the note that works, where a player's ladder has not begun yet.
func writtenStart() Param {
	p := writtenNotes(1)
	p.Label = "Or from a note that works, as the section reads it"
	return p
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
