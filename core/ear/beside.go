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
	besideLeast  = music.Seconds(0.5) // of the player's note before it
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
		if p.starts == AfterSilence || before.length() < besideLeast || p.length() < mixLasts || !p.isUnder(before) ||
			!l.isBeside(before, p) {
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

// isAsked reports whether a plateau is a note that was asked for about then.
func (l *listening) isAsked(p plateau) bool {
	return slices.ContainsFunc(l.askedAt(p.Onset), func(f music.Hertz) bool {
		return near(p.pitch, music.Between(standardPitch, f))
	})
}

// othersPlay reports whether somebody plays before the player begins.
func (l *listening) othersPlay(plateaus []plateau) bool { return len(l.playedBefore(plateaus)) > 0 }

// playedBefore returns what is played before the player begins.
func (l *listening) playedBefore(plateaus []plateau) (out []plateau) {
	targets := l.Score.Targets()
	if l.Alignment.FirstNote || len(targets) == 0 {
		return nil
	}
	begins := l.Start + l.Score.TempoBPM.Seconds(targets[0].StartBeat) - beforeTheFirst
	for _, p := range plateaus {
		if p.length() > besideLeast && p.Release < begins {
			out = append(out, p)
		}
	}
	return out
}

// othersAmong reports for each plateau whether it is somebody else's: as loud as what was
// played before the player began, far softer than the player, and no note of the part.
func (l *listening) othersAmong(plateaus []plateau) []bool {
	out := make([]bool, len(plateaus))
	var levels, all []float64
	others := l.playedBefore(plateaus)
	for _, p := range others {
		levels = append(levels, float64(p.level))
	}
	if len(others) == 0 {
		return out
	}
	for _, p := range plateaus {
		all = append(all, float64(p.level))
	}
	usual, loud := music.Decibels(dsp.Median(levels)), music.Decibels(slices.Max(all))
	asked := l.pitchesAsked()
	for n, p := range plateaus {
		out[n] = p.level < loud-besideBelow && p.differsFrom(usual) < besideAlike &&
			(p.length() < besideShort && p.level < loud-besideFar ||
				!slices.ContainsFunc(asked, func(c music.Cents) bool { return near(c, p.pitch) }) ||
				slices.ContainsFunc(others, func(o plateau) bool {
					return near(o.pitch, p.pitch) && p.differsFrom(o.level) < besideSame
				}))
	}
	return out
}

// differsFrom is how far a plateau's loudness lies from another, either way.
func (p plateau) differsFrom(level music.Decibels) music.Decibels {
	return max(p.level-level, level-p.level)
}

// besideAlike is how far the loudness of others lies apart; besideSame, of one note of theirs.
const (
	besideAlike = music.Decibels(4)
	besideSame  = music.Decibels(2)
	besideFar   = music.Decibels(18) // below the player
	besideShort = music.Seconds(0.3)
)

// beforeTheFirst is how much too soon a first note may come.
const beforeTheFirst music.Seconds = 0.3

// cutFromOthers parts a note from somebody else's on the same pitch that goes on into it:
// there the loudness goes up at once, and stays.
func (l *listening) cutFromOthers(plateaus []plateau) (out []plateau) {
	if !l.othersPlay(plateaus) {
		return plateaus
	}
	for _, p := range l.withLevels(plateaus) {
		if at, ok := l.rises(p); ok {
			others, own := p.cut(at, at, BySlur) // startAnew says when it began
			out, p = append(out, others), own
		}
		out = append(out, p)
	}
	return out
}

// rises is when a plateau goes up to its loudness at once, having been far softer.
func (l *listening) rises(p plateau) (at music.Seconds, ok bool) {
	w := window(p.pitch)
	for at = p.Onset + longEnough; at < p.Release-besideLeast; at += besideReach / 2 {
		if l.fine.Level(at, w) > p.level-besideBelow {
			break
		}
	}
	soft, loud := l.fine.Level(at-besideReach, w), l.fine.Level(at+besideReach, w)
	if at <= p.Onset+longEnough || loud-soft < besideBelow || loud < p.level-besideAlike {
		return 0, false
	}
	return l.fine.Crossing(at, besideReach, w, (soft+loud)/2, true), true
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

// besideBelow is how much softer somebody else must be for a note's start to be its own.
const besideBelow = music.Decibels(12)

// startAnew gives a note that begins while somebody else plays a start of its own: the
// player was silent before it. Where others cover its first tenth, how it rises further on
// says when that was, as if it rose evenly.
func (l *listening) startAnew(p *plateau, others plateau) {
	if p.starts == AfterSilence || p.level-others.level < besideBelow {
		return
	}
	w := window(p.pitch)
	from := max(p.level-edgeBelow, others.level+aboveQuiet)
	seen := l.fine.Crossing(p.Onset, edgeReach, w, from, true)
	half := l.fine.Crossing(seen, edgeReach, w, p.level+aHalf, true)
	if half < seen {
		return
	}
	heard, tenth, to := amplitude(from-p.level), amplitude(aTenth), amplitude(aHalf)
	p.starts, p.Onset = AfterSilence, seen-(half-seen)*music.Seconds((heard-tenth)/(to-heard))
}

// amplitude is what a level makes of an amplitude of 1.
func amplitude(d music.Decibels) float64 { return math.Pow(10, float64(d)/20) }
