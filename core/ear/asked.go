package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// A low reed's or a phone's note may have one harmonic so strong that it is heard for the
// note. Where the note was asked for just then, and its other harmonics sound all through,
// it is the note: who flies up to a harmonic has none of them.
const (
	askedNear     = 0.4                  // of a beat from where it was asked for
	askedSofter   = music.Decibels(28)   // the other harmonics together, below the one heard, at most
	askedOver     = music.Decibels(16)   // them over what lies between them, at least
	askedLoud     = music.Decibels(18)   // those that are no softer than that
	askedLoudOver = music.Decibels(10)   // stand out by less
	askedFalls    = music.Decibels(4)    // them from the first part to the last: a ring dies away
	askedLeast    = music.Seconds(0.12)  // of the sound
	askedHighest  = 6                    // harmonic
	askedOff      = music.Cents(45)      // from the harmonic
	askedWindow   = music.Seconds(0.045) // at least
)

// withNotesAsked gives harmonics that were heard for a note to the note. ok is false where
// there is nothing of it.
func (l *listening) withNotesAsked(plateaus []plateau) (c contour.Contour, ok bool) {
	c = l.contour
	beside := l.othersPlay(plateaus)
	for n, p := range plateaus {
		if l.isAsked(p) {
			continue
		}
		var times music.Hertz
		if p.length() >= askedLeast {
			times = l.harmonicHeard(p, l.askedAt(p.Onset))
		}
		if times == 0 && beside && n > 0 && p.starts != AfterSilence {
			// Somebody else's higher note, too, may be heard for the one gone on with.
			times = l.harmonicHeard(p, []music.Hertz{plateaus[n-1].pitch.Above(standardPitch)})
		}
		if times == 0 {
			continue
		}
		if !ok {
			c.Frames, ok = slices.Clone(c.Frames), true
		}
		for k := p.from; k < p.to; k++ {
			c.Frames[k].Pitch /= times
		}
	}
	return c, ok
}

// askedAt returns the notes that begin about a moment.
func (l *listening) askedAt(at music.Seconds) (out []music.Hertz) {
	for _, t := range l.Score.Targets() {
		off := l.Score.TempoBPM.Beats(at-l.Start) - t.StartBeat
		if t.Phase == scores.Play && t.GlideTo == 0 && math.Abs(float64(off)) <= askedNear {
			out = append(out, t.Target.Frequency(l.Score.A4Hz))
		}
	}
	return out
}

// isAsked reports whether a plateau is a note that was asked for about then.
func (l *listening) isAsked(p plateau) bool {
	return slices.ContainsFunc(l.askedAt(p.Onset), func(f music.Hertz) bool {
		return near(p.pitch, music.Between(standardPitch, f))
	})
}

// harmonicHeard is which harmonic of one of some notes a plateau is, while the note sounds;
// 0 where it is none.
func (l *listening) harmonicHeard(p plateau, notes []music.Hertz) music.Hertz {
	for _, note := range notes {
		above := music.Between(note, p.pitch.Above(standardPitch))
		times := math.Round(math.Exp2(float64(above) / 1200))
		if times < 2 || times > askedHighest || math.Abs(float64(above)-1200*math.Log2(times)) > float64(askedOff) {
			continue
		}
		if l.noteSounds(p, p.pitch.Above(standardPitch)/music.Hertz(times)) {
			return music.Hertz(times)
		}
	}
	return 0
}

// noteSounds reports whether a note's other harmonics sound all through a plateau that is
// one of them.
func (l *listening) noteSounds(p plateau, note music.Hertz) bool {
	heard := p.pitch.Above(standardPitch)
	own, w := onlyOf(note, heard)
	if len(own) == 0 {
		return false
	}
	w = max(w, askedWindow)
	between := make([]music.Hertz, len(own))
	for n, f := range own {
		between[n] = f + note/2
	}
	first, last := p.Onset+p.length()/3, p.Release-p.length()/3 // the next note comes early into the window
	for _, at := range []music.Seconds{first, last} {
		level := l.together(own, at, w)
		softer, over := l.together(harmonicsOf(heard), at, w)-level, level-l.together(between, at, w)
		if softer > askedSofter || over < askedLoudOver || softer > askedLoud && over < askedOver {
			return false
		}
	}
	return l.together(own, last, w) > l.together(own, first, w)-askedFalls
}
