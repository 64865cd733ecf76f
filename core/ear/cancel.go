package ear

import (
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// A room cancels one harmonic of a tone for a while, where its echoes meet; a player who
// stops, touches or fades takes all of them down together. A pure tone is all but one
// harmonic, so that its loudness alone cannot tell the one from the other: its other
// harmonics do.
const (
	cancelHarmonics = 5
	cancelPeriods   = 3 // of the pitch, in the window: its harmonics are told apart
	cancelWindow    = music.Seconds(0.012)
	cancelStep      = music.Seconds(0.008)
	cancelMoments   = 40
	lowestApart     = music.Cents(-1000)  // from A4, about 250 Hz: a lower pitch takes too long a window
	cancelBeside    = music.Seconds(0.12) // on both sides, what the harmonics are measured against
	cancelClear     = music.Decibels(10)  // out of the noise between them
	cancelFewest    = 2                   // harmonics besides the strongest
	cancelShare     = 0.4                 // of the strongest one's fall, at least, where the player stops
	cancelOthers    = music.Decibels(5)   // or so much
	cancelLeast     = music.Decibels(3)   // the strongest falls at all
)

// isCancelled reports whether what falls between two moments of a tone is one harmonic, and
// the others go on.
func (l *listening) isCancelled(pitch music.Cents, from, to music.Seconds) bool {
	strongest, others, ok := l.fallIn(pitch, from, to)
	return ok && strongest < -cancelLeast && !allFall(strongest, others)
}

// fallIn is how a tone's strongest harmonic, and most of its others, fall between two moments.
// ok is false where that cannot be known: the pitch is low, a click sounds, the others are too
// soft.
func (l *listening) fallIn(pitch music.Cents, from, to music.Seconds) (strongest, others music.Decibels, ok bool) {
	if pitch < lowestApart || l.burstsIn(from, to) {
		return 0, 0, false
	}
	body := l.harmonicsIn(pitch, from-cancelBeside, from)
	for h, after := range l.harmonicsIn(pitch, to, to+cancelBeside) {
		body[h] = harmonic{min(body[h].level, after.level), max(body[h].noise, after.noise)}
	}
	return change(body, l.harmonicsIn(pitch, from, to))
}

// allFall reports whether most harmonics fall with the strongest.
func allFall(strongest, others music.Decibels) bool {
	return others < max(cancelShare*strongest, -cancelOthers)
}

// isCancelledAt is isCancelled for the end of one tone, or the beginning of the next.
func (l *listening) isCancelledAt(at music.Seconds, before, after plateau) bool {
	switch {
	case !l.isPure() || l.burstsIn(at, at):
		return false
	case at <= after.Onset:
		return oneFalls(l.harmonicsIn(before.pitch, at-cancelBeside, at), l.harmonicsIn(before.pitch, at, at))
	}
	return oneFalls(l.harmonicsIn(after.pitch, at, at+cancelBeside), l.harmonicsIn(after.pitch, at, at))
}

// burstsIn reports whether a click, or the like, sounds between two moments: it has harmonics
// of its own.
func (l *listening) burstsIn(from, to music.Seconds) bool {
	return slices.ContainsFunc(l.contour.Bursts, func(b contour.Burst) bool {
		return b.From < to+cancelWindow && b.To > from-cancelWindow
	})
}

// oneFalls reports whether the strongest harmonic alone falls from one stretch to another.
func oneFalls(before, after []harmonic) bool {
	strongest, others, ok := change(before, after)
	return ok && strongest < -cancelLeast && !allFall(strongest, others)
}

// grows is how the loudness changes from a note's first fifth to its last: as most harmonics
// do, where the strongest goes farther, for the room has a part in that.
func (l *listening) grows(n Note, s stretch) music.Decibels {
	all := n.LevelTo - n.LevelFrom
	if music.Between(standardPitch, n.F0) < lowestApart || max(all, -all) < cancelLeast {
		return all
	}
	fifth := music.Seconds(s.t[len(s.t)-1]-s.t[0]) / 5
	pitch, from, to := music.Between(standardPitch, n.F0), music.Seconds(s.t[0]), music.Seconds(s.t[len(s.t)-1])
	strongest, others, ok := change(l.harmonicsIn(pitch, from, from+fifth), l.harmonicsIn(pitch, to-fifth, to))
	if !ok || max(others, -others) > max(strongest, -strongest) {
		return all
	}
	return all + others - strongest
}

// change is how the strongest harmonic of a tone changes from one stretch to another, and how
// most of the others do. ok is false where there is too little of them.
func change(before, after []harmonic) (strongest, others music.Decibels, ok bool) {
	most := strongestOf(before)
	var by []float64
	for h := range before {
		if h != most && before[h].level > before[h].noise+cancelClear {
			by = append(by, float64(after[h].level-before[h].level))
		}
	}
	if len(by) < cancelFewest {
		return 0, 0, false
	}
	return after[most].level - before[most].level, music.Decibels(dsp.Median(by)), true
}

// strongestOf is which harmonic is the loudest.
func strongestOf(all []harmonic) (most int) {
	for h := range all {
		if all[h].level > all[most].level {
			most = h
		}
	}
	return most
}

// harmonic is how loud one harmonic of a tone is, and the noise beside it.
type harmonic struct{ level, noise music.Decibels }

// harmonicsIn is how loud a pitch's harmonics are between two moments, most of the time.
func (l *listening) harmonicsIn(pitch music.Cents, from, to music.Seconds) []harmonic {
	f := pitch.Above(standardPitch)
	w := max(cancelWindow, cancelPeriods/music.Seconds(f))
	moments := plateau{Onset: from, Release: to}.moments(w/2, max(cancelStep, (to-from)/cancelMoments))
	middle := func(of music.Hertz) music.Decibels {
		levels := make([]float64, len(moments))
		for n, at := range moments {
			levels[n] = float64(l.take.heard.Single(of, at, w))
		}
		return music.Decibels(dsp.Median(levels))
	}
	out := make([]harmonic, cancelHarmonics)
	for h := range out {
		of := f * music.Hertz(h+1)
		out[h] = harmonic{level: middle(of), noise: middle(of + f/2)}
	}
	return out
}
