package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Who practices in the same room is heard in the count-in already, and is far softer than
// the player.
const (
	beforeTheFirst = music.Seconds(0.3)   // how much too soon a player may come
	othersLeast    = music.Seconds(0.5)   // of a sound that is somebody playing
	othersBelow    = music.Decibels(12)   // the player's notes, at least
	othersFar      = music.Decibels(18)   // below them, a scrap is somebody else's
	othersShort    = music.Seconds(0.3)   // of a scrap
	othersAlike    = music.Decibels(4)    // how far the loudness of others lies apart
	othersSame     = music.Decibels(2)    // and of one note of theirs
	othersStep     = music.Seconds(0.05)  // at which a rise out of their note is looked for
	othersRise     = music.Decibels(6)    // out of their lower note, at least
	othersClear    = music.Decibels(8)    // below a note that comes out of it
	silent         = music.Decibels(-120) // as nobody at all
	othersAround   = music.Seconds(0.1)   // around it
)

// othersPlay reports whether somebody plays before the player begins.
func (l *listening) othersPlay(plateaus []plateau) bool { return len(l.playedBefore(plateaus)) > 0 }

// othersTalk reports whether somebody talks before the player begins.
func (l *listening) othersTalk(plateaus []plateau) bool {
	return slices.ContainsFunc(l.heardBefore(plateaus), l.isSyllable)
}

// playedBefore returns what is played before the player begins.
func (l *listening) playedBefore(plateaus []plateau) []plateau {
	return slices.DeleteFunc(l.heardBefore(plateaus), func(p plateau) bool { return p.length() <= othersLeast })
}

// heardBefore returns what has a pitch before the player begins.
func (l *listening) heardBefore(plateaus []plateau) (out []plateau) {
	targets := l.Score.Targets()
	if l.Alignment.FirstNote || len(targets) == 0 {
		return nil
	}
	begins := l.Start + l.Score.TempoBPM.Seconds(targets[0].StartBeat) - beforeTheFirst
	for _, p := range plateaus {
		if p.Release < begins {
			out = append(out, p)
		}
	}
	return out
}

// levelBefore is how loud most of what is played before the player begins is.
func (l *listening) levelBefore(plateaus []plateau) music.Decibels {
	return l.usualLevel(l.playedBefore(plateaus))
}

// talkBefore is how loud most of what is said before the player begins is.
func (l *listening) talkBefore(plateaus []plateau) music.Decibels {
	return l.usualLevel(slices.DeleteFunc(l.heardBefore(plateaus), func(p plateau) bool { return !l.isSyllable(p) }))
}

// usualLevel is the middle of some plateaus' loudness; silent where there are none.
func (l *listening) usualLevel(plateaus []plateau) music.Decibels {
	var levels []float64
	for _, p := range plateaus {
		levels = append(levels, float64(l.levelOf(p)))
	}
	if len(levels) == 0 {
		return silent
	}
	return music.Decibels(dsp.Median(levels))
}

// othersAmong reports for each plateau whether it is somebody else's: as loud as what was
// played before the player began, far softer than the player, and no note of the part,
// the very note that was played before, or a scrap.
func (l *listening) othersAmong(plateaus []plateau) []bool {
	out := make([]bool, len(plateaus))
	others := l.playedBefore(plateaus)
	if len(others) == 0 {
		return out
	}
	var all []float64
	for _, p := range plateaus {
		all = append(all, float64(p.level))
	}
	usual, loud := l.levelBefore(plateaus), music.Decibels(slices.Max(all))
	asked := l.pitchesAsked()
	for n, p := range plateaus {
		out[n] = p.theirs || p.level < loud-othersBelow && p.differsFrom(usual) < othersAlike &&
			(p.length() < othersShort && p.level < loud-othersFar ||
				!slices.ContainsFunc(asked, func(c music.Cents) bool { return near(c, p.pitch) }) ||
				slices.ContainsFunc(others, func(o plateau) bool {
					return near(o.pitch, p.pitch) && p.differsFrom(o.level) < othersSame
				}))
	}
	for n := 1; n < len(plateaus); n++ {
		if out[n] && !out[n-1] {
			out[n] = !l.isOneTone(plateaus[n-1], plateaus[n])
		}
	}
	for n := len(plateaus) - 2; n >= 0; n-- {
		if out[n] && !out[n+1] {
			out[n] = !l.isOneTone(plateaus[n], plateaus[n+1])
		}
	}
	return out
}

// isOneTone reports whether a plateau goes over into another on its pitch, no louder there: who
// swells is as soft as others at times.
func (l *listening) isOneTone(a, b plateau) bool {
	if a.theirs || b.theirs || b.starts != BySlur || b.Onset-a.Release > touchTime || !near(a.pitch, b.pitch) {
		return false
	}
	w := window(a.pitch)
	step := l.fine.Level(b.Onset+othersAround, w) - l.fine.Level(a.Release-othersAround, w)
	return max(step, -step) < othersAlike
}

// differsFrom is how far a plateau's loudness lies from another, either way.
func (p plateau) differsFrom(level music.Decibels) music.Decibels {
	return max(p.level-level, level-p.level)
}

// cutFromOthers parts a note from somebody else's on the same pitch that goes on into it, or
// out of it: there the loudness goes up at once and stays, or down.
func (l *listening) cutFromOthers(plateaus []plateau) (out []plateau) {
	if !l.othersPlay(plateaus) {
		return plateaus
	}
	usual := l.levelBefore(plateaus)
	for _, p := range l.cutFromLower(l.withLevels(plateaus), usual) {
		if at, ok := l.rises(p, usual); ok {
			others, own := p.cut(at, at, BySlur) // startAnew says when it began
			others.theirs = true
			out, p = append(out, others), own
		}
		if at, ok := l.falls(p, plateaus); ok {
			own, others := p.cut(at, at, BySlur)
			others.theirs = true
			out, p = append(out, own), others
		}
		out = append(out, p)
	}
	return out
}

// cutFromLower gives a note what was read for somebody else's lower one, of which it is a harmonic,
// from where it began in that.
func (l *listening) cutFromLower(plateaus []plateau, usual music.Decibels) (out []plateau) {
	for _, p := range plateaus {
		if n := len(out) - 1; n >= 0 && out[n].starts == AfterSilence {
			w := window(out[n].pitch)
			begins := l.fine.Level(out[n].Onset+othersAround, w)
			at, ok := l.beganUnder(p, out[n])
			if ok && at > out[n].Onset+othersAround && max(begins-usual, usual-begins) < othersAlike {
				lower, own := out[n].cut(at, at, AfterSilence)
				out[n] = lower
				p.Onset, p.starts, p.hidden = own.Onset, AfterSilence, own.length()
			}
		}
		out = append(out, p)
	}
	return out
}

// falls is when a plateau goes down at once from its loudness to that of what was played before
// the player began.
func (l *listening) falls(p plateau, plateaus []plateau) (at music.Seconds, ok bool) {
	before := l.playedBefore(plateaus)
	last := before[len(before)-1]
	if p.length() < 2*longEnough || p.Onset <= last.Onset || p.differsFrom(l.levelOf(last)) > othersRise {
		return 0, false
	}
	w, usual := window(p.pitch), p.level // most of it is theirs
	for at = p.Release - longEnough; at > p.Onset+longEnough && l.fine.Level(at, w) < usual+othersBelow; {
		at -= othersStep
	}
	loud, soft := l.fine.Level(at-othersAround, w), l.fine.Level(at+2*othersAround, w)
	if at <= p.Onset+longEnough || at > p.Release-2*longEnough || max(soft-usual, usual-soft) > othersAlike {
		return 0, false
	}
	return l.fine.Crossing(at, othersAround, w, (soft+loud)/2, false), true
}

// levelOf is a plateau's usual loudness.
func (l *listening) levelOf(p plateau) music.Decibels {
	b := builder{listening: l}
	return b.level(p)
}

// rises is when a plateau goes up to its loudness at once, having been as soft as what was played
// before the player began, or far softer than it is.
func (l *listening) rises(p plateau, usual music.Decibels) (at music.Seconds, ok bool) {
	w := window(p.pitch)
	own := max(p.level, l.fine.Level(p.Release-othersAround, w)) // most of it may be theirs
	soft := max(own-othersBelow, min(usual+othersAlike, own-othersClear))
	for at = p.Onset + longEnough; at < p.Release-longEnough && l.fine.Level(at, w) <= soft; {
		at += othersStep
	}
	before := l.fine.Level(at-othersAround, w)
	loud := max(l.fine.Level(at+othersAround, w), l.fine.Level(at+2*othersAround, w)) // a soft start takes longer
	if at <= p.Onset+longEnough || loud-before < min(othersBelow, own-soft) || loud < own-othersAlike {
		return 0, false
	}
	return l.fine.Crossing(at, othersAround, w, (before+loud)/2, true), true
}

// startAnew gives a note that begins while somebody else plays a start of its own: the
// player was silent before it. Where others cover its first tenth, how it rises further on
// says when that was, as if it rose evenly.
func (l *listening) startAnew(p *plateau, others plateau) {
	if p.starts == AfterSilence {
		return
	}
	w := window(p.pitch)
	if at, ok := l.beganUnder(*p, others); ok {
		p.starts, p.Onset = AfterSilence, at
		return
	}
	if p.level-others.level < othersBelow {
		return
	}
	from := max(p.level-edgeBelow, others.level+aboveQuiet)
	half := p.Onset
	for half > p.Onset-edgeReach && l.fine.Level(half, w) >= p.level+aHalf {
		half -= contour.EnvelopeStep
	}
	for half < p.Onset+edgeReach && l.fine.Level(half, w) < p.level+aHalf {
		half += contour.EnvelopeStep
	}
	seen := half // back from there: a click before it is as loud
	for l.fine.Level(seen, w) > from {
		if seen -= contour.EnvelopeStep; seen < half-edgeReach {
			return
		}
	}
	p.starts, p.Onset = AfterSilence, seen
	if from < p.level+aHalf-leastRise {
		heard, tenth, to := amplitude(from-p.level), amplitude(aTenth), amplitude(aHalf)
		p.Onset -= (half - seen) * music.Seconds((heard-tenth)/(to-heard))
	}
}

// beganUnder is when a note began in a sound that was read for a lower one, of which it is
// a harmonic: somebody else's note and it made that sound, and there the loudness went up.
func (l *listening) beganUnder(p, lower plateau) (at music.Seconds, ok bool) {
	w := window(p.pitch)
	if !lower.isUnder(p) || p.Onset-lower.Release > turnStep {
		return 0, false
	}
	alone := lower.Onset + othersAround
	if l.fine.Level(alone, w) > p.level-othersRise {
		alone = lower.Onset - othersAround // the note was in it from its beginning
	}
	soft := l.fine.Level(alone, w)
	for at = p.Onset; at > alone && l.fine.Level(at, w) > soft+othersAlike; {
		at -= othersStep
	}
	if at > p.Onset-othersStep || p.level < soft+othersRise {
		return 0, false
	}
	return l.fine.Crossing(at, othersAround, w, soft+othersAlike, true), true
}

// amplitude is what a level makes of an amplitude of 1.
func amplitude(d music.Decibels) float64 { return math.Pow(10, float64(d)/20) }
