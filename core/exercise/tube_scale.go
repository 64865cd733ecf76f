package exercise

import (
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Tube-buzz scale: a scale down an octave on the slide tube or lead pipe,
// resting on every degree.
var tubeScale = Kind{
	Key:   "tube-buzz-scale",
	Name:  "Tube-buzz scale",
	Group: scores.Buzzing,
	Suits: isBrass,
	Why:   "The tube pulls at every note; your ear has to hold it.",
	Parts: []Param{
		number(
			"start",
			"Starts",
			"half steps from B♭",
			lowestTubeStart,
			highestTubeStart,
			1,
			highestTubeStart,
			"start from D♭ (3), C, B, B♭ (0) or A (-1)",
		),
		number("beats", "Beats on each degree", "beats", 1, 4, 1, 2, "rest on each degree for 1 to 4 beats"),
		tempo(60),
	},
	Says: func(v Values) string {
		return fmt.Sprintf(
			"concert %s down an octave, %.0f beats on each degree",
			Degree(v.number("start")).ConcertName(),
			v.beats("beats"),
		)
	},
	Lay: func(w *writer, v Values) {
		w.s.TempoBPM = v.tempo()
		top := w.tubeTop(v.count("start"))
		w.countIn("On the slide tube or lead pipe: hold it to your lips.")
		w.breathe()
		for n := len(major); n >= 0; n-- {
			step := Degree(12)
			if n < len(major) {
				step = major[n]
			}
			if n == len(major)/2 {
				w.rest(4, "Rest, and breathe.")
			}
			w.at(top-12+music.MIDI(step), v.beats("beats"), as(scores.Buzz), slurIf(len(major)-n))
		}
		w.end()
		w.judge(measure.Plateaus, 0)
		w.judge(measure.NoGap, float64(w.s.Limits.Gap))
	},
}

// The tube's scales begin on D♭, C, B, B♭ and A (common practice, no published source).
const (
	lowestTubeStart  = -1.
	highestTubeStart = 3.
)

// tubeTop is the note a tube's scale begins on: a trombone's, a euphonium's and a tuba's on
// D♭3 and below, a trumpet's and a horn's an octave higher. Each time through, the next
// start follows by itself.
func (w *writer) tubeTop(start int) music.MIDI {
	const starts = int(highestTubeStart-lowestTubeStart) + 1
	at := (int(highestTubeStart) - start + w.player.Repeat) % starts
	top := lowTubeBFlat + music.MIDI(int(highestTubeStart)-at)
	if w.i.Home() >= lowTubeBFlat+12 {
		top += 12
	}
	return top
}

const lowTubeBFlat music.MIDI = 46 // B♭2
