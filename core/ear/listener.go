package ear

import (
	"earlychorus/core/contour"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// reach is how far beyond the beginner range, in semitones, a known
// instrument's notes are still listened for: cracks go up, undertones down.
const (
	reachBelow = 7
	reachAbove = 13
	highestEar = music.Hertz(2900)
)

// For returns the ear for one instrument.
func For(i instrument.Instrument) contour.Ear {
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

// ForScore returns the ear for an instrument playing, buzzing or singing a
// score.
func ForScore(i instrument.Instrument, s scores.Score) contour.Ear {
	return listenerFor(Question{Instrument: &i, Score: &s})
}

// ear returns how to listen for what is asked.
func listenerFor(q Question) contour.Ear {
	if q.Instrument == nil {
		return contour.OpenEar
	}
	e := For(*q.Instrument)
	if q.Score == nil {
		return e
	}
	for _, t := range q.Score.Targets() {
		switch t.Phase {
		case scores.Sing:
			e.Lowest, e.Highest = min(e.Lowest, lowestSung), max(e.Highest, highestSung)
		case scores.Buzz:
			e.Lowest = max(contour.OpenEar.Lowest, min(e.Lowest, buzzBelow.Above(t.Target.Frequency(q.a4()))))
		}
	}
	return e
}
