package ear

import (
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// In a room that rings, the pitch is heard on when the player has stopped. A stop
// is then a fall of the loudness, as fast as a room lets it fall, and a new start.
const (
	stopFalls    = music.Decibels(10)
	clickedFalls = music.Decibels(15) // where a click hides how it comes again
	keepsFor     = music.Seconds(0.25)
	keepsWithin  = music.Decibels(4)
	stopBody     = music.Decibels(3)    // so far below the note, it has begun to fall
	fallsFor     = music.Seconds(0.7)   // at most
	restarts     = music.Decibels(7)    // a new start rises by so much
	restartsIn   = music.Seconds(0.024) // in so long
	stopAround   = music.Seconds(0.15)  // in which what follows gets loud
	modulates    = music.Seconds(0.5)   // around a stop, in which the loudness does not go to and fro
	notASilence  = music.Seconds(0.25)  // a voice lost for less, as loud as before, is no stop
	outOfRing    = music.Decibels(3)    // above the lowest, a new start is heard
	holeFalls    = music.Decibels(4)    // of the loudness where the pitch is lost
	holeSways    = 2.5                  // times as far as it sways
	swaysMuch    = music.Decibels(5)    // as a pure tone in a hall
	swaysSome    = music.Decibels(2)    // as one does in any room that rings
	stopsInHall  = music.Seconds(0.08)  // a stop there is heard for so long, at least
	farBelow     = music.Decibels(12)
	swayEdge     = 20                   // frames at a plateau's end
	holeEdge     = music.Seconds(0.015) // of a hole, left to its sides
)

// cutAtStops cuts a plateau where the loudness falls and comes again, and then where
// a note begins over something softer at its own pitch.
func (b *builder) cutAtStops(p plateau) (out []plateau) {
	for _, part := range b.cutWhere(p, stopAt) {
		for _, over := range b.cutWhere(part, jumpAt) {
			out = append(out, b.cutWhere(over, dropAt)...)
		}
	}
	return out
}

// cutWhere cuts a plateau at every place that is found.
func (b *builder) cutWhere(
	p plateau,
	find func(levels []music.Decibels, n int) (from, to int, found bool),
) []plateau {
	levels := b.levelsOf(fully, p)
	edge := int(tongueEdge / tongueStep)
	for n := edge; n < len(levels)-edge; n++ {
		from, to, found := find(levels, n)
		if !found {
			continue
		}
		begin, end := p.Onset+music.Seconds(from)*tongueStep, p.Onset+music.Seconds(to)*tongueStep
		if b.isCancelled(p.pitch, begin, end) ||
			from < to && (b.onlyClicks(p, begin, end) || b.onlySofter(p, begin, end)) {
			n = max(n, to)
			continue
		}
		first, rest := p.cut(begin, end, AfterSilence)
		if first.length() > 0 && rest.length() > 0 {
			return append([]plateau{first}, b.cutWhere(rest, find)...)
		}
	}
	return []plateau{p}
}

// onlyClicks reports whether what rises at the end of a stop is a click, over a note whose
// loudness merely sways: the note is little louder when the click has rung.
func (b *builder) onlyClicks(p plateau, begin, end music.Seconds) bool {
	if !b.isClicked(contour.Burst{From: end, To: end + clickRings}) {
		return false
	}
	w, lowest := window(p.pitch), music.Decibels(0)
	for at := begin; at < end; at += tongueStep {
		lowest = min(lowest, b.fine.Level(at, w))
	}
	return b.fine.Level(min(p.Release, end+rungClick), w)-lowest < clickedFalls
}

// onlySofter reports whether a note goes on in a stop, softer: a ring dies away, and does not keep
// its loudness.
func (b *builder) onlySofter(p plateau, begin, end music.Seconds) bool {
	from, to, w := end-keepsFor, end-holeEdge, window(p.pitch)
	if from < begin {
		return false
	}
	softest, loudest := music.Decibels(0), silent
	for at := from; at < to; at += tongueStep {
		level := b.fine.Level(at, w)
		softest, loudest = min(softest, level), max(loudest, level)
	}
	return loudest-softest < keepsWithin && softest > b.quiet+stopFalls
}

// stopAt reports whether the loudness stops around a moment that is its lowest, and
// from when to when. Moments are counted in tongueSteps.
func stopAt(levels []music.Decibels, n int) (from, to int, found bool) {
	steps := func(s music.Seconds) int { return int(s / tongueStep) }
	lo, hi := max(0, n-steps(fallsFor)), min(len(levels), n+steps(stopAround))
	bottom := levels[n]
	if n > 0 && levels[n-1] < bottom || n+1 < hi && levels[n+1] < bottom {
		return 0, 0, false // most moments; the rest are looked at farther around
	}
	if anyBelow(levels[max(0, n-steps(tongueEdge)):hi], bottom) {
		return 0, 0, false
	}
	before, after := slices.Max(levels[lo:n+1]), slices.Max(levels[n:hi])
	if min(before, after)-bottom < stopFalls {
		return 0, 0, false
	}
	// A click on a note's start is louder than the note, and soon gone.
	if before = heldFor(levels[lo:n+1], steps(longestPeak)); before-bottom < stopFalls {
		return 0, 0, false
	}
	for to = n; to < hi && levels[to] < after-stopBody; {
		to++
	}
	for from = n; from > lo && levels[from] < before-stopBody; {
		from--
	}
	if steepest(levels, n, to+steps(restartsIn)+1) < restarts || to-from < steps(tongueLongest) {
		return 0, 0, false
	}
	depth := min(before, after) - bottom
	// A click is loud on one side of a stop, too, and gone.
	lasts := steps(stopAround)
	if !staysAbove(levels[max(0, from-lasts):from], bottom+depth/2) ||
		!staysAbove(levels[to:min(len(levels), to+lasts)], bottom+depth/2) {
		return 0, 0, false
	}
	waves := dips(levels[max(0, from-steps(modulates)):from], depth/2) ||
		dips(levels[to:min(len(levels), to+steps(modulates))], depth/2)
	// The note begins where it comes out of what rings, as one does out of silence.
	for to > n && levels[to-1] > max(after-edgeBelow, bottom+outOfRing) {
		to--
	}
	return from, to, !waves
}

// anyBelow reports whether the loudness is below a level at any moment.
func anyBelow(levels []music.Decibels, level music.Decibels) bool {
	for _, v := range levels {
		if v < level {
			return true
		}
	}
	return false
}

// heldFor is the loudness that a stretch has for so many steps, all in all.
func heldFor(levels []music.Decibels, steps int) music.Decibels {
	sorted := slices.Sorted(slices.Values(levels))
	return sorted[max(0, len(sorted)-1-min(steps, len(sorted)/2))]
}

// longestPeak is for how long a click, or a start, is louder than what comes then.
const longestPeak = music.Seconds(0.1)

// staysAbove reports whether the loudness is above a level for most of a stretch.
func staysAbove(levels []music.Decibels, level music.Decibels) bool {
	count := 0
	for _, v := range levels {
		if v > level {
			count++
		}
	}
	return 2*count >= len(levels)
}

// jumpAt reports whether a note begins at a moment over something much softer at its
// own pitch: a hum, a ring, a neighbour.
func jumpAt(levels []music.Decibels, n int) (from, to int, found bool) {
	around := int(tongueEdge / tongueStep)
	return n, n, n >= around && n+around <= len(levels) && levels[n+1]-levels[n] > 0 &&
		levels[n+around/3]-levels[n-1] >= jumps && // or the softest and the loudest are no farther apart
		slices.Min(levels[n+around/3:n+around])-slices.Max(levels[n-around:n]) >= jumps
}

// dropAt reports whether a note ends at a moment over something much softer at its own
// pitch, which goes on.
func dropAt(levels []music.Decibels, n int) (from, to int, found bool) {
	around, takes := int(tongueEdge/tongueStep), int(dropTakes/tongueStep)
	if n < around || n+takes+2*around > len(levels) {
		return 0, 0, false
	}
	if levels[n-1]-levels[n+takes] < drops {
		return 0, 0, false // nor are the softest and the loudest
	}
	before, after := slices.Min(levels[n-around:n]), slices.Max(levels[n+takes:n+takes+2*around])
	return n, n + takes, before-after >= drops && levels[n] >= before-stopBody
}

const (
	drops     = music.Decibels(18)
	dropTakes = music.Seconds(0.1)
)

// jumps is how far a note stands out of what it begins over.
const jumps = music.Decibels(12)

// dips reports whether the loudness goes down and up again by some depth: a waver,
// not a stop.
func dips(levels []music.Decibels, depth music.Decibels) bool {
	if len(levels) == 0 {
		return false
	}
	top, bottom := levels[0], levels[0]
	for _, v := range levels {
		switch {
		case v > top:
			top, bottom = v, v
		case v < bottom:
			bottom = v
		}
		if top-bottom >= depth && v-bottom >= depth {
			return true
		}
	}
	return false
}

// isHole reports whether a stretch without a pitch inside a note is a silence: the
// loudness falls in it, farther than it sways anyhow, or it lasts.
func (l *listening) isHole(before, after plateau) bool {
	if strongest, others, ok := l.fallIn(before.pitch, before.Release, after.Onset); ok {
		return strongest < -holeFalls && allFall(strongest, others)
	}
	sways := max(l.sways(before), l.sways(after))
	if sways >= swaysSome && l.softFor(before, after) < stopsInHall {
		return false
	}
	if after.Onset-before.Release >= notASilence && sways < swaysMuch {
		return true
	}
	w := window(before.pitch)
	lowest := music.Decibels(0)
	for at := before.Release + holeEdge; at < after.Onset-holeEdge; at += tongueStep {
		lowest = min(lowest, l.fine.Level(at, w))
	}
	falls := max(holeFalls, holeSways*sways)
	return lowest < min(before.level, after.level)-falls
}

// softFor is for how long the loudness between two plateaus is far below theirs: where a tone
// stops in a hall it stays there, where echoes cancel it, it only touches it.
func (l *listening) softFor(before, after plateau) (long music.Seconds) {
	w := window(before.pitch)
	body := min(before.level, after.level)
	for at := before.Release; at < after.Onset; at += tongueStep {
		if l.fine.Level(at, w) < body-farBelow {
			long += tongueStep
		}
	}
	return long
}

// sways is how far the loudness of a plateau falls at times below its middle: in a hall, a
// pure tone's echoes cancel it now and then; of other tones, only some harmonic.
func (l *listening) sways(p plateau) music.Decibels {
	if !l.isPure() || p.to-p.from < 2*swayEdge {
		return 0
	}
	var levels []float64
	for _, f := range l.contour.Frames[p.from+swayEdge/2 : p.to-swayEdge] { // a ring falls at its end
		levels = append(levels, float64(f.Level))
	}
	return music.Decibels(dsp.Quantile(levels, 0.5) - dsp.Quantile(levels, 0.1))
}

// isPure reports whether the instrument's tone is all but one harmonic, which a room can cancel.
func (l *listening) isPure() bool {
	i := l.Question.Instrument
	return i != nil && (i.Family == instrument.Flutes || i.Family == instrument.Recorders)
}
