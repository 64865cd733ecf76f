package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Air pulses: the air pushes a long tone, or air alone, so many times a beat.
var airPulses = Kind{
	Key:   "air-pulses",
	Name:  "Air pulses",
	Group: scores.LongTones,
	Why:   "The air learns to move on purpose, and never to turn back.",
	Parts: []Param{
		notes(
			"Concert note",
			1,
			0,
		),
		number("pulses", "Pulses to a beat", "", 1, 4, 1, 2, "give each beat 1 to 4 pulses"),
		writtenNotes(1),
		choice(
			"on",
			"On",
			"note",
			Option{"note", "a note"},
			Option{"arpeggio", "the arpeggio 1-3-5-8 from it"},
			Option{"air", "air alone"},
		),
		choice(
			"rhythm",
			"In what rhythm",
			"even",
			Option{"even", "the same on every note"},
			Option{"turn", "one to a beat and so many to a beat, note by note in turn"},
		),
		number("beats", "Beats", "beats", 4, 8, 1, 8, "go on for 4 to 8 beats"),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%d to a beat on %s, %.0f beats at %.0f",
			v.count("pulses"),
			map[string]string{
				"note":     saysNotes(v),
				"arpeggio": "the arpeggio from " + saysNotes(v),
				"air":      "air alone",
			}[v.choice("on")],
			v.beats("beats"),
			v.tempo(),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn(readyText)
		w.breathe()
		switch v.choice("on") {
		case "air":
			w.add(scores.Segment{
				Phase:  scores.Out,
				Beats:  v.beats("beats"),
				Bursts: v.count("pulses") * int(v.beats("beats")),
				Text:   "Push the air",
			})
			w.judge(measure.AirBursts, 0)
			w.judge(measure.AirEven, mostUneven)
		case "note":
			w.at(w.apart(v)[0], v.beats("beats"), pulsed(v.count("pulses")))
			w.judgePulses()
		case "arpeggio":
			w.pulsedArpeggio(v)
			w.judgePulses()
		}
		w.end()
	},
}

// pulsedArpeggio goes up and down over 1-3-5-8, slurred: the air alone pushes.
func (w *writer) pulsedArpeggio(v Values) {
	degrees := upAndDown(chord(v.notes()[0], 4), "both")
	w.s.KeyFifths = w.s.KeyFifths.Transposed(int(v.notes()[0]))
	sinceBreath := music.Beats(0)
	for n, m := range w.turning(degrees) {
		if n > 0 && sinceBreath+pulsedBeats > w.s.TempoBPM.Beats(oneBreath) {
			w.rest(4, "Breathe.")
			sinceBreath = 0
		}
		pulses := v.count("pulses")
		if v.choice("rhythm") == "turn" && n%2 == 0 {
			pulses = 1
		}
		w.at(m, pulsedBeats, pulsed(pulses), slurIf(int(sinceBreath)))
		sinceBreath += pulsedBeats
	}
}

// pulsedBeats is how long a note of the arpeggio is: long enough to tell how often the
// air comes.
const pulsedBeats music.Beats = 4

// chord is the notes 1, 3, 5 and 8 of a key, the third so many half steps up.
func chord(tonic, third Degree) []Degree {
	return []Degree{tonic, tonic + third, tonic + 7, tonic + 12}
}

func pulsed(n int) func(*scores.Segment) {
	return func(s *scores.Segment) {
		s.Pulses = n
		s.Text = fmt.Sprintf("%s, %d pushes of air to a beat", s.WrittenName, n)
		if n == 1 {
			s.Text = s.WrittenName + ", one push of air to a beat"
		}
	}
}

func (w *writer) judgePulses() {
	w.judge(measure.Speaks, 0)
	w.judge(measure.RightNote, 0)
	w.judge(measure.NoGap, float64(w.s.Limits.Gap))
	w.judge(measure.PulseRate, pulseOff)
}

const pulseOff = 0.10 // share off the rate asked for
