package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Somebody else's note, or both together, may be heard for the player's: it is so where others
// were heard before the player began, and the player's note goes on in it as it was.
const (
	besideStep    = music.Seconds(0.05)
	besideSofter  = music.Decibels(6)  // what only a lower note has, against the player's
	besideFewer   = music.Decibels(15) // or most of it: somebody else's higher note may be on one of its harmonics
	besideMissing = 0.3                // of what only a lower note has: two others may have the rest
	besideEven    = music.Decibels(3)  // how far the player's note goes on as it was, under which another lies
	besideLouder  = music.Decibels(7)  // or gets louder, by what another has on its harmonics
	besideFalls   = music.Decibels(9)  // or by which what only it has falls, beside another
	besideReach   = music.Seconds(0.1)
	besideWindow  = music.Seconds(0.06)
)

// withoutOthersBeside gives what is heard for somebody else's note to the player's, which goes
// on in it. ok is false where there is nothing of it.
func (l *listening) withoutOthersBeside(plateaus []plateau) (c contour.Contour, ok bool) {
	c = l.contour
	if !l.othersPlay(plateaus) && !l.othersTalk(plateaus) {
		return c, false
	}
	asked, others := l.pitchesAsked(), l.othersAmong(l.withLevels(plateaus))
	isOwn := func(n int) bool {
		p := plateaus[n]
		return p.length() >= othersLeast && (!others[n] || l.comesWhenAsked(p)) &&
			slices.ContainsFunc(asked, func(c music.Cents) bool { return near(c, p.pitch) })
	}
	usual := l.levelBefore(plateaus)
	replace := func(k int, pitch music.Hertz) {
		if !ok {
			c.Frames, ok = slices.Clone(c.Frames), true
		}
		c.Frames[k].Pitch = pitch
	}
	var note plateau // the last that is surely the player's
	for n, p := range plateaus {
		joined := note.to != 0 && p.starts != AfterSilence
		if note.to != 0 && near(p.pitch, note.pitch) && (joined || l.goesOnUntil(note, p.Onset)) {
			for k := note.to; k < p.from; k++ {
				replace(k, note.pitch.Above(standardPitch))
			}
			note.to, note.Release = p.to, p.Release
			continue
		}
		if !joined || l.isAsked(p) || !l.goesOnIn(note, p, usual) {
			note = plateau{}
			if isOwn(n) {
				note = p
			}
			continue
		}
		times := music.Hertz(math.Round(math.Exp2(float64(note.pitch-p.pitch) / 1200)))
		for k := p.from; k < p.to; k++ {
			if p.isUnder(note) {
				replace(k, times*c.Frames[k].Pitch)
				continue
			}
			replace(k, note.pitch.Above(standardPitch))
		}
		note.to, note.Release = p.to, p.Release
	}
	return c, ok
}

// comesWhenAsked reports whether a plateau begins out of silence when its note is asked for: the
// player's, though somebody else played the very same as loud.
func (l *listening) comesWhenAsked(p plateau) bool {
	return p.starts == AfterSilence && slices.ContainsFunc(l.Score.Targets(), func(t scores.Segment) bool {
		off := p.Onset - l.Start - l.Score.TempoBPM.Seconds(t.StartBeat)
		return max(off, -off) < besideReach &&
			near(music.Between(standardPitch, t.Target.Frequency(l.Score.A4Hz)), p.pitch)
	})
}

// goesOnIn reports whether a note goes on in a plateau that was heard behind it, where others
// are so loud.
func (l *listening) goesOnIn(note, p plateau, others music.Decibels) bool {
	if p.isUnder(note) {
		return l.isBeside(note, p, others)
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

// goesOnUntil reports whether a note goes on from its end to a moment, though it has no pitch
// there: beside another it has none.
func (l *listening) goesOnUntil(note plateau, until music.Seconds) bool {
	hole, shared := plateau{Onset: note.Release, Release: until}, harmonicsOf(note.pitch.Above(standardPitch))
	was := l.middleOf(shared, note.Release-besideReach, besideWindow)
	for _, at := range hole.moments(besideWindow/2, besideStep) {
		if l.middleOf(shared, at, besideWindow) < was-besideFalls {
			return false
		}
	}
	return true
}

// isBeside reports whether a plateau is a note gone on with and somebody else's, so loud, under it.
func (l *listening) isBeside(note, p plateau, others music.Decibels) bool {
	pitch, low := note.pitch.Above(standardPitch), p.pitch.Above(standardPitch)
	own, w := onlyOf(low, pitch)
	if len(own) == 0 {
		return false
	}
	w = max(w, min(besideWindow, p.length()/2)) // narrower ones run into each other
	shared := harmonicsOf(pitch)
	was := l.together(shared, max(note.Onset, p.Onset-besideReach), w)
	var alone, softer, fewer, change []float64
	for _, at := range p.moments(w, besideStep) {
		level := l.together(shared, at, w)
		alone = append(alone, float64(l.together(own, at, w)))
		softer = append(softer, float64(level)-alone[len(alone)-1])
		fewer = append(fewer, float64(l.middleOf(shared, at, w)-l.levelAmong(own, at, w, besideMissing)))
		change = append(change, float64(level-was))
	}
	none := dsp.Median(softer) > float64(besideSofter) || dsp.Median(fewer) > float64(besideFewer) ||
		dsp.Median(alone) < float64(others) // no more of it than they have
	by := music.Decibels(dsp.Median(change))
	return none && by > -besideEven && by < besideLouder
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
	return l.levelAmong(frequencies, at, window, 0.5)
}

// levelAmong is how loud some frequencies are at a moment, all but the softest share of them.
func (l *listening) levelAmong(frequencies []music.Hertz, at, window music.Seconds, share float64) music.Decibels {
	levels := make([]float64, len(frequencies))
	for n, f := range frequencies {
		levels[n] = float64(l.take.heard.Single(f, at, window))
	}
	return music.Decibels(dsp.Quantile(levels, share))
}

// harmonicsOf returns the first harmonics of a pitch.
func harmonicsOf(pitch music.Hertz) (out []music.Hertz) {
	for h := 1; h <= turnHarmonics; h++ {
		out = append(out, pitch*music.Hertz(h))
	}
	return out
}
