package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

func isBrass(i instrument.Instrument) bool { return i.Family == instrument.Brass }

// Air, then buzz: the air goes first and the lips join it.
var airThenBuzz = Kind{
	Key:   "air-then-buzz",
	Name:  "Air, then buzz",
	Group: scores.Buzzing,
	Suits: isBrass,
	Why:   "The air comes first; the lips only join in.",
	Parts: []Param{
		number("air_beats", "Air", "beats", 1, 4, 1, 2, "blow air for 1 to 4 beats"),
		number("beats", "Buzz", "beats", 2, 8, 1, 4, "buzz for 2 to 8 beats"), repeats(3, 6), tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"%.0f beats of air, %.0f of buzz, %d times",
			v.beats("air_beats"),
			v.beats("beats"),
			v.count("repeats"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		w.countIn(w.mouthpiece())
		for n := range v.count("repeats") {
			w.restAfterBuzz(n, v.beats("beats"))
			w.add(scores.Segment{Phase: scores.Out, Beats: v.beats("air_beats"), Text: "Air"})
			w.at(w.i.Home(), v.beats("beats"), as(scores.Buzz), slurred)
		}
		w.end()
		w.judge(measure.Speaks, 0)
		w.judge(measure.Response, airToBuzz)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
		w.judge(measure.Held, buzzHeld)
	},
}

const (
	airToBuzz                 = 0.3 // s
	buzzHeld                  = 0.8 // a buzz alone is shorter than a note
	leastBuzzRest music.Beats = 4
)

// mouthpiece says what is buzzed on, by the class's school.
func (w *writer) mouthpiece() string {
	if w.c.BuzzOn == BuzzOnTube {
		return "On the slide tube or lead pipe: hold it to your lips."
	}
	return "Mouthpiece alone, held by its end."
}

// restAfterBuzz rests as long as was buzzed, then takes the breath.
func (w *writer) restAfterBuzz(n int, buzzed music.Beats) {
	if n == 0 {
		w.breathe()
		return
	}
	w.rest(max(leastBuzzRest, buzzed+breathBeats), "Rest as long as you buzzed.")
}

const heldInstead music.Beats = 8

// listenInstead is what a class that does not buzz does: home, held, and heard.
func (w *writer) listenInstead() {
	w.notice("This class does not buzz: home is held on the instrument instead.")
	w.countIn(readyText)
	w.breathe()
	w.at(w.i.Home(), heldInstead, saying("Play home, and listen to the sound only."))
	w.end()
	w.judgeTone()
}
