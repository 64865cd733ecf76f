package ear

import (
	"cmp"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Where a score repeats a note, the tongue parts it: a dip of the loudness with a
// start as quick as one. In a room that rings the dip is shallow; how shallow says
// how far to doubt it.
const (
	repeatDip    = music.Decibels(4)
	repeatSure   = music.Decibels(12)
	repeatRises  = music.Decibels(3)
	repeatApart  = music.Seconds(0.1)
	repeatAfter  = music.Seconds(0.08) // in which the new start gets loud
	repeatBefore = music.Seconds(0.16) // in which what rings on was loud
	goesOnShare  = 0.1                 // of a slurred repetition, at least, in which the note goes on
)

// cutForScore cuts plateaus where the score goes on to the same pitch: at tongued
// notes wherever the loudness dips; at slurred ones, as the stretches of a swell
// are, on the beat itself, for nothing else tells.
func (l *listening) cutForScore(plateaus []plateau) []plateau {
	var out []plateau
	asked, others := l.pitchesAsked(), l.levelBefore(plateaus)
	for _, whole := range plateaus {
		steps := l.cutAtSteps(whole, asked)
		if others > silent {
			steps = l.withoutMixed(steps, asked, others)
		}
		out = append(out, steps...)
	}
	out = l.cutAtDips(out)
	targets := l.Score.Targets()
	for n := 1; n < len(targets); n++ {
		if !repeats(targets, n) || targets[n].Articulation != scores.Slurred {
			continue
		}
		beat := l.Start + l.Score.TempoBPM.Seconds(targets[n].StartBeat)
		k := slices.IndexFunc(out, func(p plateau) bool {
			return p.Onset+longEnough/2 < beat && beat < p.Release-longEnough/2
		})
		least := goesOnShare * l.Score.TempoBPM.Seconds(targets[n].Beats)
		if k >= 0 && (out[k].Release > beat+least || goesOnAfter(out, k)) {
			first, rest := out[k].cut(beat, beat, BySlur)
			out = slices.Replace(out, k, k+1, first, rest)
		}
	}
	return out
}

// goesOnAfter reports whether a plateau's pitch goes on right after it: where it does not,
// what sounds for a moment behind a beat is the ring of what was before.
func goesOnAfter(plateaus []plateau, k int) bool {
	return k+1 < len(plateaus) && plateaus[k+1].Onset-plateaus[k].Release < chainGap
}

// rested reports whether the score rests between two moments, in beats.
func (l *listening) rested(from, to music.Beats) bool {
	return slices.ContainsFunc(l.Score.Segments, func(s scores.Segment) bool {
		return (s.Phase == scores.Rest || s.Phase == scores.Breathe) && s.StartBeat >= from && s.StartBeat < to
	})
}

// repeats reports whether target n is the note before again.
func repeats(targets []scores.Segment, n int) bool {
	return n > 0 && targets[n].Target == targets[n-1].Target && targets[n-1].GlideTo == 0
}

// isRepeated reports whether a plateau's pitch is one that the score repeats with
// the tongue.
func (l *listening) isRepeated(p plateau) bool {
	targets := l.Score.Targets()
	for n := range targets {
		if repeats(targets, n) && targets[n].Articulation != scores.Slurred &&
			!l.rested(targets[n-1].StartBeat, targets[n].StartBeat) &&
			near(p.pitch, music.Between(standardPitch, targets[n].Target.Frequency(l.Score.A4Hz))) {
			return true
		}
	}
	return false
}

// cut parts a plateau: the first part ends at from, the rest begins at to.
func (p plateau) cut(from, to music.Seconds, how Start) (first, rest plateau) {
	first, rest = p, p
	first.Release, first.to = from, min(p.to, max(p.from+1, contour.Index(from)))
	rest.Onset, rest.from, rest.starts = to, max(p.from, min(p.to-1, contour.Index(to))), how
	return first, rest
}

// cutAtDips cuts plateaus of repeated notes at every dip that may be the tongue's.
func (l *listening) cutAtDips(plateaus []plateau) (out []plateau) {
	dips := make([][]dip, len(plateaus))
	for n, p := range plateaus {
		if l.isRepeated(p) {
			dips[n] = l.dipsOf(p)
		}
	}
	ripple := l.rippleOf(slices.Concat(dips...))
	for n, p := range plateaus {
		for _, d := range dips[n] {
			doubt := max(0, min(1, float64((repeatSure-d.depth+ripple)/(repeatSure-repeatDip))))
			if ripple > 0 && doubt > ripplesOn && !l.isRepeatedAt(d.at) {
				continue
			}
			// A click makes the note before it softer than it, and dies away like a start.
			if !l.isRepeatedAt(d.at) && l.isClicked(contour.Burst{From: d.at - clickRings, To: d.at}) {
				doubt = 1
			}
			first, rest := p.cut(d.at, d.at, ByTongue)
			rest.doubt = doubt
			out, p = append(out, first), rest
		}
		out = append(out, p)
	}
	return out
}

// dip is where the loudness goes down for a moment and comes back at once.
type dip struct {
	at    music.Seconds
	depth music.Decibels
}

// dipsOf finds the dips of a plateau that may be the tongue's.
func (l *listening) dipsOf(p plateau) (out []dip) {
	plain, bright := l.levelsOf(fully, p), l.levelsOf(brightly, p)
	steps := func(s music.Seconds) int { return int(s / tongueStep) }
	for n := steps(repeatApart); n < len(plain)-steps(repeatApart); n++ {
		depth, at := repeatAt(plain, n)
		if d, where := repeatAt(bright, n); d > depth {
			depth, at = d, where
		}
		if depth < repeatDip {
			continue
		}
		out = append(out, dip{p.Onset + music.Seconds(at)*tongueStep, depth})
		n += steps(repeatApart)
	}
	out = append(out, l.dipsOfMost(p, out)...)
	slices.SortFunc(out, func(a, b dip) int { return cmp.Compare(a.at, b.at) })
	return out
}

// repeatAt returns how deep the loudness dips at a step that is its lowest and before a
// quick new start, and at which step that begins; 0 where nothing like it is there.
func repeatAt(levels []music.Decibels, n int) (depth music.Decibels, at int) {
	lo := max(0, n-int(repeatBefore/tongueStep))
	hi := min(len(levels), n+int(repeatAfter/tongueStep))
	if anyBelow(levels[max(lo, n-int(repeatAfter/tongueStep)):hi], levels[n]) ||
		steepest(levels, n, hi) < repeatRises {
		return 0, 0
	}
	depth = min(slices.Max(levels[lo:n+1]), slices.Max(levels[n:hi])) - levels[n]
	return depth, n + steepestAt(levels, n, hi)
}

// steepestAt is how many steps after from the fastest rise of the loudness begins.
func steepestAt(levels []music.Decibels, from, to int) (at int) {
	in, best := int(restartsIn/tongueStep), music.Decibels(0)
	for k := from; k+in < min(to, len(levels)); k++ {
		if rise := levels[k+in] - levels[k]; rise > best {
			at, best = k-from, rise
		}
	}
	return at
}

// steepest is the fastest rise of the loudness in restartsIn between two steps.
func steepest(levels []music.Decibels, from, to int) (rise music.Decibels) {
	in := int(restartsIn / tongueStep)
	for k := from; k+in < min(to, len(levels)); k++ {
		rise = max(rise, levels[k+in]-levels[k])
	}
	return rise
}
