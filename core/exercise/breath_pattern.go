package exercise

import (
	"fmt"

	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Breath pattern: in, hold, out in bursts or a stream, wait; some rounds.
var breathPattern = Kind{
	Key:   "breath-pattern",
	Name:  "Breath pattern",
	Group: scores.Breathing,
	Why:   "Everything you play is made of this air.",
	Parts: []Param{
		number("in", "In", "beats", 2, 8, 1, 4, "breathe in for 2 to 8 beats"),
		number("hold", "Hold", "beats", 0, 8, 1, 4, "hold for 8 beats at most"),
		number("out", "Out", "beats", 2, 16, 1, 8, "blow out for 2 to 16 beats"),
		choice(
			"how",
			"Out how",
			"bursts",
			Option{"bursts", "in equal short bursts, one a beat"},
			Option{"steady", "in one even stream"},
			Option{"spread", "slowly, spread over all beats"},
		),
		number("wait", "Wait", "beats", 0, 8, 1, 4, "wait for 8 beats at most"),
		number("rounds", "Rounds", "", 1, 12, 1, 8, "do 1 to 12 rounds"),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"in %.0f, hold %.0f, out %.0f %s, wait %.0f, %d rounds",
			v.beats("in"),
			v.beats("hold"),
			v.beats("out"),
			map[string]string{
				"bursts": "in bursts", "steady": "in one stream", "spread": "spread out",
			}[v.choice("how")],
			v.beats("wait"),
			v.count("rounds"),
		)
	},
	Check: func(v Values) error {
		if s := v.tempo().Seconds(v.beats("hold")); s > longestBreathHold {
			return ParameterError{
				"hold",
				fmt.Sprintf(
					"the breath would be held for %.0f s; hold it for %.0f s at most",
					s,
					float64(longestBreathHold),
				),
			}
		}
		return nil
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		bursts := 0
		if v.choice("how") == "bursts" {
			bursts = int(v.beats("out"))
		}
		w.add(scores.Segment{Phase: scores.Ready, Beats: scores.CountIn, Text: "Sit tall, shoulders low."})
		for range v.count("rounds") {
			w.add(scores.Segment{Phase: scores.Breathe, Beats: v.beats("in"), Text: "In"})
			w.add(scores.Segment{Phase: scores.Hold, Beats: v.beats("hold"), Text: "Hold, throat open"})
			w.add(scores.Segment{
				Phase:  scores.Out,
				Beats:  v.beats("out"),
				Bursts: bursts,
				Text:   "Out",
			})
			w.add(scores.Segment{Phase: scores.Rest, Beats: v.beats("wait"), Text: "Wait"})
		}
		w.end()
		w.judge(measure.AirBursts, 0)
		if bursts > 0 {
			w.judge(measure.AirEven, mostUneven)
		}
		w.judge(measure.AirLength, airWithin)
	},
}

const (
	longestBreathHold = 8    // seconds, for young players
	mostUneven        = 0.25 // spread of the bursts' energy
	airWithin         = 0.5  // beats
)
