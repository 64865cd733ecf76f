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
	besideBeats   = 6                  // of so many moments, one may be softer still
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
	usual := max(l.levelBefore(plateaus), l.talkBefore(plateaus))
	give := func(p, note plateau) { // frames to a note
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
	}
	var note plateau // the last that is surely the player's
	for n, p := range plateaus {
		joined := note.to != 0 && p.starts != AfterSilence
		switch {
		case note.to != 0 && near(p.pitch, note.pitch) && (joined || l.goesOnUntil(note, p.Onset)):
			give(plateau{from: note.to, to: p.from, pitch: note.pitch}, note)
			note.to, note.Release = p.to, p.Release
		case joined && !l.changesAt(note, p) && l.goesOnIn(note, p, usual):
			give(p, note)
			note.to, note.Release = p.to, p.Release
		default:
			note = plateau{}
			if isOwn(n) {
				note = p
			} else if asked, under := l.askedOver(p, usual); under && !goesOver(plateaus, n, asked) {
				give(p, asked)
			}
		}
	}
	return c, ok
}

// goesOver reports whether a plateau goes over into a note, which then began in it: cutFromLower
// says when.
func goesOver(plateaus []plateau, n int, note plateau) bool {
	return n+1 < len(plateaus) && plateaus[n+1].starts != AfterSilence && near(plateaus[n+1].pitch, note.pitch)
}

// changesAt reports whether a plateau is a note asked for about then, or another than the one before
// is: an octave down has all of its harmonics.
func (l *listening) changesAt(note, p plateau) bool {
	return l.isAsked(p) || slices.ContainsFunc(l.askedAt(p.Onset), func(f music.Hertz) bool {
		return !near(note.pitch, music.Between(standardPitch, f))
	})
}

// askedOver is the note asked for in a plateau that was heard for a lower one, of which there is
// no more than others, so loud, would make.
func (l *listening) askedOver(p plateau, others music.Decibels) (asked plateau, ok bool) {
	for _, f := range l.askedAt(p.Onset) {
		asked = plateau{pitch: music.Between(standardPitch, f)}
		if p.length() < askedLeast || !p.isUnder(asked) {
			continue
		}
		if h, known := l.heardUnder(asked, p); known && h.alone < others+othersSame && h.softer > besideSofter {
			return asked, true
		}
	}
	return plateau{}, false
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
	moments, softer := p.moments(w/2, besideStep), 0
	for _, at := range moments {
		if l.together(own, at, w) < was-besideFalls {
			softer++
		}
	}
	return softer*besideBeats <= len(moments) // the two beat, too
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
	h, ok := l.heardUnder(note, p)
	if !ok {
		return false
	}
	none := h.softer > besideSofter || h.fewer > besideFewer || h.alone < others // no more of it than they have
	was := l.together(harmonicsOf(note.pitch.Above(standardPitch)), max(note.Onset, p.Onset-besideReach), h.window)
	by := h.shared - was
	return none && by > -besideEven && by < besideLouder
}

// underneath is what is heard, most of the time, in a plateau of which another note is a harmonic.
type underneath struct {
	shared music.Decibels // the harmonics of both together
	alone  music.Decibels // what only the lower note has
	softer music.Decibels // so much is that softer
	fewer  music.Decibels // and most of it against most of the shared
	window music.Seconds  // in which they are told apart
}

// heardUnder asks for the lower note in a plateau. ok is false where they cannot be told apart.
func (l *listening) heardUnder(note, p plateau) (h underneath, ok bool) {
	pitch, low := note.pitch.Above(standardPitch), p.pitch.Above(standardPitch)
	own, w := onlyOf(low, pitch)
	if len(own) == 0 {
		return underneath{}, false
	}
	w = max(w, min(besideWindow, p.length()/2)) // narrower ones run into each other
	both := harmonicsOf(pitch)
	var shared, alone, softer, fewer []float64
	for _, at := range p.moments(w, besideStep) {
		all, only := l.together(both, at, w), l.together(own, at, w)
		shared, alone = append(shared, float64(all)), append(alone, float64(only))
		softer = append(softer, float64(all-only))
		fewer = append(fewer, float64(l.middleOf(both, at, w)-l.levelAmong(own, at, w, besideMissing)))
	}
	middle := func(x []float64) music.Decibels { return music.Decibels(dsp.Median(x)) }
	return underneath{middle(shared), middle(alone), middle(softer), middle(fewer), w}, true
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
