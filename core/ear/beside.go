package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Somebody else's note, or both together, may be heard for the player's: it is so where others
// were heard before the player began, and the player's note goes on in it as it was.
const (
	besideStep   = music.Seconds(0.05)
	besideSofter = music.Decibels(6)  // what only a lower note has, against the player's
	besideFewer  = music.Decibels(15) // or most of it: somebody else's higher note may be on one of its harmonics
	besideEven   = music.Decibels(3)  // how far the player's note goes on as it was, under which another lies
	besideFalls  = music.Decibels(6)  // or by which what only it has falls, beside another
	besideReach  = music.Seconds(0.1)
)

// withoutOthersBeside gives what is heard for somebody else's note to the player's, which goes
// on in it. ok is false where there is nothing of it.
func (l *listening) withoutOthersBeside(plateaus []plateau) (c contour.Contour, ok bool) {
	c = l.contour
	if !l.othersPlay(plateaus) {
		return c, false
	}
	asked, others := l.pitchesAsked(), l.othersAmong(l.withLevels(plateaus))
	isOwn := func(n int) bool {
		return plateaus[n].length() >= othersLeast && !others[n] &&
			slices.ContainsFunc(asked, func(c music.Cents) bool { return near(c, plateaus[n].pitch) })
	}
	var note plateau // the last that is surely the player's
	for n, p := range plateaus {
		if n == 0 || p.starts == AfterSilence || note.to == 0 || l.isAsked(p) || !l.goesOnIn(note, p) {
			note = plateau{}
			if isOwn(n) {
				note = p
			}
			continue
		}
		if !ok {
			c.Frames, ok = slices.Clone(c.Frames), true
		}
		times := music.Hertz(math.Round(math.Exp2(float64(note.pitch-p.pitch) / 1200)))
		for k := p.from; k < p.to; k++ {
			if p.isUnder(note) {
				c.Frames[k].Pitch *= times
				continue
			}
			c.Frames[k].Pitch = note.pitch.Above(standardPitch)
		}
		note.to, note.Release = p.to, p.Release
	}
	return c, ok
}

// goesOnIn reports whether a note goes on in a plateau that was heard behind it.
func (l *listening) goesOnIn(note, p plateau) bool {
	if p.isUnder(note) {
		return l.isBeside(note, p)
	}
	widest := min(turnWidest, p.length())
	own, w := onlyOfWithin(note.pitch.Above(standardPitch), p.pitch.Above(standardPitch), widest)
	if len(own) == 0 {
		return false
	}
	was := l.together(own, max(note.Onset, p.Onset-besideReach), w)
	for _, at := range p.moments(w/2, besideStep) {
		if l.together(own, at, w) < was-besideFalls {
			return false
		}
	}
	return true
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
	var softer, fewer, change []float64
	for _, at := range p.moments(w, besideStep) {
		level := l.together(shared, at, w)
		softer = append(softer, float64(level-l.together(own, at, w)))
		fewer = append(fewer, float64(l.middleOf(shared, at, w)-l.middleOf(own, at, w)))
		change = append(change, math.Abs(float64(level-was)))
	}
	none := dsp.Median(softer) > float64(besideSofter) || dsp.Median(fewer) > float64(besideFewer)
	return none && dsp.Median(change) < float64(besideEven)
}

// moments are those of a plateau a step apart, its edges left out: its middle at least.
func (p plateau) moments(edge, step music.Seconds) (out []music.Seconds) {
	for at := p.Onset + edge; at <= p.Release-edge; at += step {
		out = append(out, at)
	}
	if len(out) == 0 {
		out = append(out, (p.Onset+p.Release)/2)
	}
	return out
}

// middleOf is how loud most of some frequencies are at a moment.
func (l *listening) middleOf(frequencies []music.Hertz, at, window music.Seconds) music.Decibels {
	levels := make([]float64, len(frequencies))
	for n, f := range frequencies {
		levels[n] = float64(l.take.heard.Single(f, at, window))
	}
	return music.Decibels(dsp.Median(levels))
}

// harmonicsOf returns the first harmonics of a pitch.
func harmonicsOf(pitch music.Hertz) (out []music.Hertz) {
	for h := 1; h <= turnHarmonics; h++ {
		out = append(out, pitch*music.Hertz(h))
	}
	return out
}
