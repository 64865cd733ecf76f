package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Starts and ends: a note begun and ended with care, soft and loud.
var startsAndEnds = Kind{
	Key:   "starts-and-ends",
	Name:  "Starts and ends",
	Group: scores.LongTones,
	Why:   "A note should speak at once and end without falling.",
	Parts: []Param{
		notes("Concert note", 2, 0),
		writtenNotes(2),
		choice(
			"start",
			"Start",
			"class",
			Option{"class", "as the class begins"},
			Option{"tongued", "with the tongue"},
			Option{"breath", "with the breath alone"},
		),
		choice(
			"loudness",
			"Loudness",
			"soft-loud",
			Option{"soft-loud", "soft and loud in turn"},
			Option{"extremes", "very soft and very loud in turn"},
			Option{"even", "comfortable"},
		),
		choice(
			"end",
			"End",
			"class",
			Option{"class", "as the class ends"},
			Option{"taper", "air tapers, no tongue"},
			Option{"stopped", "stopped"},
		),
		choice(
			"wait",
			"Into the note",
			"none",
			Option{"none", "breathe and play"},
			Option{"three-step", "breathe, set, release: the wait shrinks to none"},
		),
		repeats(4, 8),
		number("beats", "Beats each", "beats", 2, 8, 1, 4, "hold each note for 2 to 8 beats"),
		tempo(80),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s, %d times, %s start, %s end",
			saysNotes(v),
			v.count("repeats"),
			map[string]string{"class": "the class's", "tongued": "tongued", "breath": "breath"}[v.choice("start")],
			map[string]string{"class": "the class's", "taper": "tapered", "stopped": "stopped"}[v.choice("end")],
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		line := w.apart(v)
		pairs := map[string][2]scores.Dynamic{
			"soft-loud": {"p", "f"}, "extremes": {"pp", "ff"}, "even": {"mf", "mf"},
		}[v.choice("loudness")]
		w.countIn(readyText)
		for n := range v.count("repeats") {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(startsRest, "Rest.")
			}
			if wait := setBeats - music.Beats(n); v.choice("wait") == "three-step" && wait > 0 {
				w.add(scores.Segment{Phase: scores.Ready, Beats: wait, Text: "Set: mouth ready, air waiting."})
			}
			w.at(
				line[n%len(line)],
				v.beats("beats"),
				loud(pairs[n%2], pairs[n%2]),
				w.begins(v.choice("start")),
				w.ends(v.choice("end")),
				saysStart,
			)
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.Response, promptly)
		w.judge(measure.Scoop, leastScooped)
		w.judge(measure.Begins, 0)
		w.judge(measure.Contrast, leastContrast)
		if w.ending(v.choice("end")) == scores.Taper {
			w.judge(measure.Taper, leastTaper)
			w.judge(measure.EndBend, mostFall)
		}
	},
}

// begins is how the notes begin: as chosen, or as the class does it.
func (w *writer) begins(how string) func(*scores.Segment) {
	if how == "class" {
		return starting(w.c.Start)
	}
	return starting(scores.Articulation(how))
}

// ending is how the notes end: as chosen, or as the class does it; "" where the director
// marks it elsewhere.
func (w *writer) ending(how string) scores.Ending {
	switch {
	case how == "taper", how == "class" && w.c.End == TaperedEnd:
		return scores.Taper
	case how == "stopped":
		return scores.Stopped
	}
	return ""
}

func (w *writer) ends(how string) func(*scores.Segment) {
	return func(s *scores.Segment) { s.Ending = w.ending(how) }
}

// saysStart tells the player what this repeat asks for: "C4: soft, with the tongue; let the
// air taper".
func saysStart(s *scores.Segment) {
	s.Text = fmt.Sprintf("%s: %s, %s", s.WrittenName, loudness[s.Dynamic], startWords[s.Articulation])
	if end := endWords[s.Ending]; end != "" {
		s.Text += "; " + end
	}
}

var (
	loudness = map[scores.Dynamic]string{
		"pp": "very soft", "p": "soft", "mf": "comfortable", "f": "loud", "ff": "very loud",
	}
	startWords = map[scores.Articulation]string{
		scores.Tongued:     "with the tongue",
		scores.BreathStart: "with the breath alone",
	}
	endWords = map[scores.Ending]string{
		scores.Taper:   "let the air taper",
		scores.Stopped: "stop it on the beat",
	}
)

// setBeats is the first wait between the breath and the note of a three-step start; each
// repeat waits a beat less.
const setBeats music.Beats = 3

const startsRest music.Beats = 4

const (
	leastContrast = 8.   // dB
	promptly      = 0.15 // s
	leastScooped  = 30.  // cents
	leastTaper    = 0.15 // s
	mostFall      = 20.  // cents
)
