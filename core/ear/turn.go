package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// In a room that rings, the pitch that is left is heard on over the one that came. When
// it gave way is then told by what only the old note has: there its loudness begins to
// fall.
const (
	turnReach     = music.Seconds(0.5) // before the pitch is seen to change
	turnStep      = music.Seconds(0.01)
	turnLeast     = music.Seconds(0.05)  // nearer, the change is where it was seen
	turnFalls     = music.Decibels(3)    // of the old note alone, when it has begun to die away
	turnTakes     = music.Seconds(0.05)  // from the one note to the other
	turnFallen    = music.Decibels(6)    // and when it has
	turnCame      = music.Decibels(10)   // below what it becomes, the new note has come
	turnWindow    = music.Seconds(0.045) // at least
	turnWidest    = music.Seconds(0.12)
	turnHarmonics = 6 // of the old note
	turnAll       = 3 // of the new one, where all are looked at
)

// turnBack puts every slurred change of pitch where the note before was left.
func (l *listening) turnBack(plateaus []plateau) []plateau {
	plateaus = l.overtonesTaken(l.mixesTaken(plateaus))
	for n := 1; n < len(plateaus); n++ {
		before, after := &plateaus[n-1], &plateaus[n]
		if after.starts != BySlur || after.Onset > before.Release+turnStep {
			continue
		}
		at, ok := l.turnOf(*before, *after)
		if !ok || after.length() < min(passes, after.Onset-at) { // two notes in passing, or with a click
			continue
		}
		after.hidden += after.Onset - at
		before.Release, after.Onset = at, at
		before.to = min(before.to, max(before.from+1, contour.Index(at)))
	}
	return plateaus
}

// turnOf is when the note before was left, where that is earlier than it was seen.
func (l *listening) turnOf(before, after plateau) (at music.Seconds, ok bool) {
	pitch := after.pitch.Above(standardPitch)
	only, w := onlyOf(before.pitch.Above(standardPitch), pitch)
	if len(only) == 0 {
		return 0, false
	}
	meeting := after.Onset
	var levels []music.Decibels // back from the meeting
	top := contour.Silence
	for t := meeting; t > max(before.Onset+w, meeting-turnReach); t -= turnStep {
		level := l.together(only, t, w)
		levels, top = append(levels, level), max(top, level)
	}
	if len(levels) == 0 || levels[0] > top-turnFallen {
		return 0, false
	}
	back := 0
	for levels[back] < top-turnFalls {
		back++
	}
	at = meeting - music.Seconds(back)*turnStep
	return at, l.cameBy(at, meeting, pitch, before, w) && meeting-at >= turnLeast
}

// cameBy reports whether a note that is heard from a meeting on sounded at a moment already.
func (l *listening) cameBy(at, meeting music.Seconds, pitch music.Hertz, before plateau, w music.Seconds) bool {
	// What only the new note has: there it came before it was heard.
	if own, v := onlyOf(pitch, before.pitch.Above(standardPitch)); len(own) > 0 {
		// What comes after the meeting stays out of the window, as far as that can be.
		return l.together(own, min(at+v, (at+meeting)/2), v) > l.together(own, meeting+v, v)-turnCame
	}
	// An octave or a twelfth up has nothing of its own; one of its harmonics may be cancelled.
	var comes []float64
	for _, f := range harmonicsOf(pitch)[:turnAll] {
		comes = append(comes, float64(l.take.heard.Single(f, at+turnTakes+w, w)-l.take.heard.Single(f, meeting+w, w)))
	}
	return dsp.Median(comes) > -float64(turnCame)
}

// together is how loud some frequencies are, all in all.
func (l *listening) together(frequencies []music.Hertz, at, window music.Seconds) music.Decibels {
	power := 0.
	for _, f := range frequencies {
		power += math.Pow(10, float64(l.take.heard.Single(f, at, window))/10)
	}
	return music.Decibels(10 * math.Log10(power))
}

// onlyOf returns the harmonics of one pitch that are far enough from those of another
// to be heard alone, and over what window.
func onlyOf(pitch, other music.Hertz) (out []music.Hertz, window music.Seconds) {
	return onlyOfWithin(pitch, other, turnWidest)
}

// onlyOfWithin is onlyOf, over a window no wider than so.
func onlyOfWithin(pitch, other music.Hertz, widest music.Seconds) (out []music.Hertz, window music.Seconds) {
	for h := 1; h <= turnHarmonics; h++ {
		of := pitch * music.Hertz(h)
		nearest := music.Hertz(math.Max(1, math.Round(float64(of/other)))) * other
		apart := math.Abs(float64(of - nearest))
		if w := music.Seconds(2 / math.Max(1, apart)); w <= widest {
			out, window = append(out, of), max(window, turnWindow, w)
		}
	}
	return out, window
}

// What rings and what came make one sound for a moment, which is read as the pitch of
// which both are harmonics.
const mixLasts = music.Seconds(0.3)

// mixesTaken gives such moments to the note that came.
func (l *listening) mixesTaken(plateaus []plateau) (out []plateau) {
	for n, p := range plateaus {
		if n > 0 && n < len(plateaus)-1 && p.length() < mixLasts && p.starts != AfterSilence &&
			plateaus[n+1].starts != AfterSilence && p.isUnder(plateaus[n+1]) &&
			(p.isUnder(plateaus[n-1]) || p.length() < passes && p.sharesWith(plateaus[n-1]) ||
				(p.length() < passes || p.sharesWith(plateaus[n-1])) && l.isOnlyMix(p, plateaus[n-1], plateaus[n+1])) {
			plateaus[n+1].Onset, plateaus[n+1].hidden = p.Onset, p.length()
			continue
		}
		out = append(out, p)
	}
	return out
}

// isOnlyMix reports whether a lower note than two others has nothing of its own: most of what
// only it would have is not there.
func (l *listening) isOnlyMix(p, before, after plateau) bool {
	low, next := p.pitch.Above(standardPitch), after.pitch.Above(standardPitch)
	own, w := onlyOf(low, next)
	apart, v := onlyOf(low, before.pitch.Above(standardPitch))
	own = slices.DeleteFunc(own, func(f music.Hertz) bool { return !slices.Contains(apart, f) })
	w = max(w, v)
	middle := (p.Onset + p.Release) / 2
	return len(own) > 0 && l.middleOf(own, middle, w) < l.middleOf(harmonicsOf(next), middle, w)-besideFewer
}

// isUnder reports whether another plateau's pitch is a higher harmonic of this one's.
func (p plateau) isUnder(o plateau) bool {
	times := math.Round(math.Exp2(float64(o.pitch-p.pitch) / 1200))
	return times >= 2 && near(o.pitch, p.pitch+music.Cents(1200*math.Log2(times)))
}

// sharesWith reports whether every second or third harmonic of a lower note is one of this
// pitch: the two make one sound with others.
func (p plateau) sharesWith(o plateau) bool {
	for _, every := range []float64{2, 3} {
		times := every * math.Exp2(float64(o.pitch-p.pitch)/1200)
		off := 1200 * math.Log2(times/math.Round(times))
		if times > every && math.Round(times) > every && math.Abs(off) < float64(sharesWithin) {
			return true
		}
	}
	return false
}

// sharesWithin is how well a pitch that is made by two notes fits them.
const sharesWithin = music.Cents(30)

// overtonesTaken gives a moment at a harmonic of the note that came to that note, where the
// note's other harmonics sound already: what rings hides the rest of it. Who really
// starts too high has none of them.
func (l *listening) overtonesTaken(plateaus []plateau) (out []plateau) {
	for n, p := range plateaus {
		if len(out) == 0 || n == len(plateaus)-1 { // nothing before it, or nothing behind
			out = append(out, p)
			continue
		}
		before, after := out[len(out)-1], &plateaus[n+1]
		switch {
		case before.isLeft(p, *after):
			out[len(out)-1].to, out[len(out)-1].Release = p.to, p.Release
			continue
		case l.soundsIn(p, *after, before):
			after.Onset, after.starts = p.Onset, p.starts
			after.hidden += p.length()
			continue
		}
		out = append(out, p)
	}
	return out
}

// isLeft reports whether a moment on the way from this note to the next is what this one
// leaves behind: one of its harmonics, which rings longer than it.
func (p plateau) isLeft(moment, next plateau) bool {
	return moment.length() < passes && moment.starts != AfterSilence && next.starts != AfterSilence &&
		moment.Onset-p.Release < turnStep && p.isUnder(moment) && !near(p.pitch, next.pitch)
}

// passes is how long it takes to pass from one note to the next, at most.
const passes = music.Seconds(0.08)

// soundsIn reports whether a moment is a harmonic of the note behind it, and others that only
// that note has sound in it already.
func (l *listening) soundsIn(p, after, before plateau) bool {
	if p.length() >= mixLasts || p.starts == AfterSilence || after.starts == AfterSilence ||
		near(before.pitch, after.pitch) || !after.isUnder(p) {
		return false
	}
	came := after.pitch.Above(standardPitch)
	own, w := onlyOf(came, p.pitch.Above(standardPitch))
	apart, v := onlyOf(came, before.pitch.Above(standardPitch))
	own = slices.DeleteFunc(own, func(f music.Hertz) bool { return !slices.Contains(apart, f) })
	w = max(w, v)
	middle := (p.Onset + p.Release) / 2
	return len(own) > 0 && l.together(own, middle, w) > l.together(own, after.Onset+w, w)-turnCame
}
