package ear

import (
	"math"
	"slices"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
	"earlychorus/core/scores"
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

// A pure tone that sways a little in pitch is all but cancelled by its own echoes again and
// again, as often as it sways: faster than a beginner tongues a note on and on.
const (
	ripplesFor    = music.Seconds(0.08) // one lasts, at most
	ripplesWithin = music.Cents(30)
	ripplesEvery  = music.Seconds(0.22) // from one to the next, at most; tongues are slower (from memory)
)

// ripplesJoined joins what ripples parted.
func (l *listening) ripplesJoined(plateaus []plateau) (out []plateau) {
	if !l.isPure() || slices.ContainsFunc(l.Score.Targets(), func(t scores.Segment) bool { return t.Pulses > 0 }) {
		return plateaus // pushed again and again, or too rich to be cancelled
	}
	for n := 0; n < len(plateaus); {
		to, parted := n+1, 0
		for to < len(plateaus) && l.ripplesInto(plateaus[to-1], plateaus[to]) {
			if !l.isRepeatedAt(plateaus[to].Onset) {
				parted++
			}
			to++
		}
		if parted < max(fewestRipples, l.repeatsAsked()*3/2) {
			out = append(out, plateaus[n:to]...)
		} else {
			out = append(out, l.joinedAgain(plateaus[n:to])...)
			if to < len(plateaus) && plateaus[to].starts == ByTongue && !l.isRepeatedAt(plateaus[to].Onset) {
				plateaus[to].starts = BySlur // the dip there is one more
			}
		}
		n = to
	}
	return out
}

// ripplesInto reports whether a plateau goes on in the next one after a moment.
func (l *listening) ripplesInto(p, next plateau) bool {
	off := max(p.pitch-next.pitch, next.pitch-p.pitch)
	return next.Onset-p.Release < ripplesFor && off < ripplesWithin && min(p.length(), next.length()) < ripplesEvery
}

// joinedAgain joins plateaus into one, but for where a note is asked for once more.
func (l *listening) joinedAgain(parts []plateau) (out []plateau) {
	for n, p := range parts {
		if n == 0 || l.isRepeatedAt(p.Onset) {
			out = append(out, p)
			continue
		}
		last := &out[len(out)-1]
		last.to, last.Release = p.to, p.Release
	}
	return out
}
