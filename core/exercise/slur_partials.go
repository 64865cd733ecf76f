package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Slur across partials: brass open notes, one tongue at the start.
var slurPartials = Kind{
	Key:   "slur-across-partials",
	Name:  "Slur across partials",
	Group: scores.Registers,
	Suits: isBrass,
	Why:   "Lips and air change the note; the tongue stays out of it.",
	Parts: []Param{
		choice(
			"over",
			"Over",
			"two",
			Option{"two", "two open notes"},
			Option{"three", "three open notes"},
			Option{"five", "five open notes"},
		),
		onOff("upside_down", "From above", true),
		number("beats", "Beats each", "beats", 1, 4, 1, 2, "hold each note for 1 to 4 beats"),
		repeats(2, 4),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%s open notes, %s each, %d times",
			v.choice("over"),
			sayBeats(v.beats("beats")),
			v.count("repeats"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		way := w.openWay(map[string]int{"two": 2, "three": 3, "five": 5}[v.choice("over")], v.on("upside_down"))
		w.countIn(readyText)
		for n := range v.count("repeats") {
			if n == 0 {
				w.breathe()
			} else {
				w.rest(max(leastBuzzRest, music.Beats(len(way))*v.beats("beats")), "Rest as long as you played.")
			}
			w.slurOver(way, v.beats("beats"))
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.RightNote, 0)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.Change, float64(w.s.Limits.ChangeTime))
		w.judge(measure.NoTongue, 0)
		w.judge(measure.Response, float64(w.s.Limits.Start))
	},
}

// slurOver slurs over open notes on one breath; where they are more than a breath holds, it
// breathes at the turn.
func (w *writer) slurOver(way []music.MIDI, beats music.Beats) {
	turn := -1
	if w.s.TempoBPM.Seconds(music.Beats(len(way))*beats) > oneBreath {
		turn = len(way) / 2
	}
	for k, m := range way {
		w.at(m, beats, slurIf(k), w.airTo(way, k))
		if k == turn {
			w.rest(leastBuzzRest, "Breathe at the turn.")
			w.at(m, beats) // begun anew where it stopped
		}
	}
}

// airTo says what the air does on the way to an open note, in the class's picture.
func (w *writer) airTo(way []music.MIDI, k int) func(*scores.Segment) {
	return func(s *scores.Segment) {
		switch {
		case k == 0:
		case way[k] > way[k-1]:
			s.Text = w.c.Air.Say(s.WrittenName + ": {faster}, corners firm")
		default:
			s.Text = w.c.Air.Say(s.WrittenName + ": {slower}, jaw low")
		}
	}
}

// openWay is the way over so many open notes and back: F–B♭–F from above, or
// B♭–F–B♭. Where the stage has fewer open notes, those it has.
func (w *writer) openWay(count int, fromAbove bool) []music.MIDI {
	span := w.stage.Span(w.i)
	var open []music.MIDI
	for _, m := range w.i.OpenNotes() {
		if span.Contains(m) {
			open = append(open, m)
		}
	}
	if len(open) < count {
		w.notice(fmt.Sprintf("%s has %d open notes at this stage.", w.i.Name, len(open)))
	}
	open = open[:min(count, len(open))]
	up := append([]music.MIDI(nil), open...)
	down := make([]music.MIDI, 0, len(open))
	for n := len(open) - 1; n >= 0; n-- {
		down = append(down, open[n])
	}
	if fromAbove {
		return append(down, up[1:]...)
	}
	return append(up, down[1:]...)
}
