package ear

import (
	"math"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// A tone that ripples by itself, or in a room, dips again and again where nothing is
// tongued: the tongue's dips are those that are deeper.
const (
	fewestRipples = 5
	ripplesOn     = 0.7 // the doubt of a dip that is not worth a second look
)

// rippleOf is how deep the tone dips by itself; 0 where it does not.
func (l *listening) rippleOf(dips []dip) music.Decibels {
	var depths []float64
	for _, d := range dips {
		if !l.isRepeatedAt(d.at) {
			depths = append(depths, float64(d.depth))
		}
	}
	if len(depths) < max(fewestRipples, l.repeatsAsked()*3/2) { // or who is off the beat tongues them
		return 0
	}
	return music.Decibels(dsp.Median(depths)) - repeatDip
}

// repeatsAsked counts the notes that are the one before again.
func (l *listening) repeatsAsked() (count int) {
	targets := l.Score.Targets()
	for n := range targets {
		if repeats(targets, n) {
			count++
		}
	}
	return count
}

// isRepeatedAt reports whether a moment is about where a note is asked for once more.
func (l *listening) isRepeatedAt(at music.Seconds) bool {
	targets := l.Score.Targets()
	for n, t := range targets {
		off := l.Score.TempoBPM.Beats(at-l.Start) - t.StartBeat
		if repeats(targets, n) && math.Abs(float64(off)) < ripplesNear {
			return true
		}
	}
	return false
}

// ripplesNear is in beats.
const ripplesNear = 0.15
