package take

import (
	"earlychorus/core/contour"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// reach is how far beyond the beginner range, in semitones, a known
// instrument's notes are still listened for: cracks go up, undertones down.
const (
	reachBelow = 7
	reachAbove = 13
	highestEar = music.Hertz(2900)
)

// EarFor returns the ear for one instrument.
func EarFor(i instrument.Instrument) contour.Ear {
	low := (i.Beginner.From - reachBelow).Frequency(music.StandardA4)
	high := (i.Beginner.To + music.MIDI(max(reachAbove, i.Overblow+1))).Frequency(music.StandardA4)
	return contour.Ear{Lowest: max(low, contour.OpenEar.Lowest), Highest: min(high, highestEar)}
}

// The pitches of a child's singing voice, with room on both sides, and how far
// lips alone go beyond the instrument's notes.
const (
	lowestSung  = music.Hertz(70)
	highestSung = music.Hertz(1100)
	buzzBelow   = music.Cents(-700)
)

// EarForScore returns the ear for an instrument playing, buzzing or singing a
// score.
func EarForScore(i instrument.Instrument, s exercise.Score) contour.Ear {
	return ear(Question{Instrument: &i, Score: &s})
}

// ear returns how to listen for what is asked.
func ear(q Question) contour.Ear {
	if q.Instrument == nil {
		return contour.OpenEar
	}
	e := EarFor(*q.Instrument)
	if q.Score == nil {
		return e
	}
	for _, t := range q.Score.Targets() {
		switch t.Phase {
		case exercise.Sing:
			e.Lowest, e.Highest = min(e.Lowest, lowestSung), max(e.Highest, highestSung)
		case exercise.Buzz:
			e.Lowest = max(contour.OpenEar.Lowest, min(e.Lowest, buzzBelow.Above(t.Target.Frequency(q.a4()))))
		}
	}
	return e
}
