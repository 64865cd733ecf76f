package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Somebody else's lower note, of which the player's is a harmonic, makes one sound with
// it, and is read for it. It is somebody else's where others were heard before the player
// began, the player's note goes on in it as it was, and what only the lower one has is
// soft against it.
const (
	besideStep   = music.Seconds(0.05)
	besideSofter = music.Decibels(6)
	besideEven   = music.Decibels(3) // how far the player's note goes on as it was
	besideReach  = music.Seconds(0.1)
)

// withoutOthersUnder gives what is heard for a lower note that somebody else plays to the
// note above it. ok is false where there is nothing of it.
func (l *listening) withoutOthersUnder(plateaus []plateau) (c contour.Contour, ok bool) {
	c = l.contour
	if !l.othersPlay(plateaus) {
		return c, false
	}
	for n := 1; n < len(plateaus); n++ {
		before, p := plateaus[n-1], plateaus[n]
		if p.starts == AfterSilence || before.length() < othersLeast || p.length() < mixLasts || !p.isUnder(before) ||
			l.isAsked(p) || !l.isBeside(before, p) {
			continue
		}
		if !ok {
			c.Frames, ok = slices.Clone(c.Frames), true
		}
		times := music.Hertz(math.Round(math.Exp2(float64(before.pitch-p.pitch) / 1200)))
		for k := p.from; k < p.to; k++ {
			c.Frames[k].Pitch *= times
		}
	}
	return c, ok
}

// isBeside reports whether a plateau is a note gone on with and somebody else's under it.
func (l *listening) isBeside(note, p plateau) bool {
	pitch, low := note.pitch.Above(standardPitch), p.pitch.Above(standardPitch)
	own, w := onlyOf(low, pitch)
	if len(own) == 0 {
		return false
	}
	shared := harmonicsOf(pitch)
	was := l.together(shared, max(note.Onset, p.Onset-besideReach), w)
	var softer, change []float64
	for at := p.Onset + w; at < p.Release-w; at += besideStep {
		level := l.together(shared, at, w)
		softer = append(softer, float64(level-l.together(own, at, w)))
		change = append(change, math.Abs(float64(level-was)))
	}
	if len(softer) == 0 {
		return false
	}
	return dsp.Median(softer) > float64(besideSofter) && dsp.Median(change) < float64(besideEven)
}

// harmonicsOf returns the first harmonics of a pitch.
func harmonicsOf(pitch music.Hertz) (out []music.Hertz) {
	for h := 1; h <= turnHarmonics; h++ {
		out = append(out, pitch*music.Hertz(h))
	}
	return out
}
