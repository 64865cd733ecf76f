package measure

import (
	"math"

	"earlychorus/core/scores"
)

// Sung is where the sung note lies, in any octave.
var Sung = Measure{
	Key:     "sung",
	Unit:    "cents",
	Meaning: "the sung note lies this near, in any octave",
	Take:    sung,
	Fault:   &notSung,
	Also:    []*Fault{&playedInstead},
}

// CauseSung names a sung note that is beside the pitch, or missing.
const CauseSung Cause = "sung"

// notSung is a sung note that is beside the pitch, or missing, and what helps.
var notSung = Fault{
	Cause: CauseSung,
	Rank:  whetherItSounds + 7,
	Tips: []Advice{
		{
			Key:  "not-sung",
			When: When{Direction: Low},
			Text: "Hear the note twice, hum it, then sing it out. Any octave will do.",
		},
		{Key: "sung", Text: "Listen again. Slide your voice until it melts into the note. Then sing it straight."},
	},
}

// CausePlayedInstead names notes that were played where they were to be sung.
const CausePlayedInstead Cause = "played-instead"

// playedInstead is the instrument where the voice was asked, and what helps.
var playedInstead = Fault{
	Cause: CausePlayedInstead,
	Rank:  whetherItSounds + 9,
	Tips:  []Advice{{Key: "played-instead", Text: "Sing it first, in any octave. Then play it."}},
}

// A voice and an instrument on the same note differ in how bright they are, in
// their odd and even harmonics and in how clear: so far on average, they are two.
const (
	brightnessApart = 0.1 // of a natural logarithm
	oddEvenApart    = 3.  // dB
	clearnessApart  = 10. // dB
	sameSource      = 1.  // of the three, added up
)

// playsInstead reports whether the notes to be sung sound like the same notes of
// the instrument in the same take.
func (c Case) playsInstead() bool {
	var sum float64
	pairs := 0
	targets := c.Score.Targets()
	for n, t := range targets {
		a := c.Analysis.Notes[n]
		if t.Phase != scores.Sing || !a.Played {
			continue
		}
		for k := n + 1; k < len(targets); k++ {
			b := c.Analysis.Notes[k]
			if targets[k].Phase == scores.Play && b.Played && b.MIDI == a.MIDI {
				sum += math.Abs(math.Log(max(1, a.Tone.Brightness)/max(1, b.Tone.Brightness)))/brightnessApart +
					math.Abs(float64(a.Tone.OddEven-b.Tone.OddEven))/oddEvenApart +
					math.Abs(float64(a.Tone.Clearness-b.Tone.Clearness))/clearnessApart
				pairs++
				break
			}
		}
	}
	return pairs > 0 && sum/float64(pairs) < sameSource
}

func sung(c Case, limit float64) (out []Reading) {
	plays := c.playsInstead()
	for n, t := range c.Score.Targets() {
		if t.Phase != scores.Sing {
			continue
		}
		note := c.Analysis.Notes[n]
		m := Reading{
			Note:  n,
			Value: float64(note.Centre),
			Limit: limit,
			Trust: note.Distrust.Pitch,
			Way:   sign(float64(note.Centre)),
		}
		if !note.Played {
			m.Absent, m.Excess, m.Way, m.Trust = true, hopeless, Low, ""
		}
		if plays && note.Played {
			m.Excess, m.Cause, m.Trust = hopeless, CausePlayedInstead, ""
		}
		out = append(out, m)
	}
	return out
}
