package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// Breath pattern: in, hold, out in bursts or a stream, wait; some rounds.
var breathPattern = Kind{
	Key:       "breath-pattern",
	Name:      "Breath pattern",
	Group:     scores.Breathing,
	Unpitched: true,
	Why:       "Everything you play is made of this air.",
	Parts: []Param{
		number("in", "In", "beats", 2, 8, 1, 4, "breathe in for 2 to 8 beats"),
		number("hold", "Hold", "beats", 0, 8, 1, 4, "hold for 8 beats at most"),
		number("out", "Out", "beats", 2, 16, 1, 4, "blow out for 2 to 16 beats").before(8.),
		choice(
			"how",
			"Out how",
			"bursts",
			Option{"bursts", "in equal short bursts"},
			Option{"steady", "in one even stream"},
			Option{"spread", "slowly, spread over all beats"},
		),
		number("per_beat", "Bursts to a beat", "", 1, 4, 1, 2, "give each beat 1 to 4 bursts").before(1.),
		number("wait", "Wait", "beats", 0, 8, 1, 4, "wait for 8 beats at most"),
		choice(
			"arms",
			"Arms",
			"still",
			Option{"still", "at rest"},
			Option{"up", "up with the air in, down with the air out"},
			Option{"stretch", "stretched to the sides, then let go"},
		),
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
				"bursts": fmt.Sprintf("in %d bursts", burstsOf(v)), "steady": "in one stream", "spread": "spread out",
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
		bursts, arms := burstsOf(v), armsDo[v.choice("arms")]
		w.add(scores.Segment{Phase: scores.Ready, Beats: scores.CountIn, Text: "Sit tall, shoulders low."})
		for range v.count("rounds") {
			w.add(scores.Segment{Phase: scores.Breathe, Beats: v.beats("in"), Text: "In" + arms[0]})
			w.add(scores.Segment{Phase: scores.Hold, Beats: v.beats("hold"), Text: "Hold, throat open" + arms[1]})
			w.add(scores.Segment{
				Phase:  scores.Out,
				Beats:  v.beats("out"),
				Bursts: bursts,
				Text:   "Out" + outHow[v.choice("how")] + arms[2],
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

// burstsOf is how many bursts an out is blown in; 0 for a stream.
func burstsOf(v Values) int {
	if v.choice("how") != "bursts" {
		return 0
	}
	return int(v.beats("out")) * v.count("per_beat")
}

// armsDo is what the arms do while the air comes in, waits and goes out.
var armsDo = map[string][3]string{
	"up":      {", arms up", ", arms up", ", arms down"},
	"stretch": {", stretch to the sides", ", stay long", ", let the arms go"},
}

var outHow = map[string]string{
	"bursts": " in short bursts",
	"steady": " in one even stream",
	"spread": ", and make it last",
}

const (
	longestBreathHold = 8    // seconds, for young players
	mostUneven        = 0.25 // spread of the bursts' energy
	airWithin         = 0.5  // beats
)
