package ear

import (
	"math"
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// shape measures how a note begins and ends.
func (l *listening) shape(n *Note, g group) {
	first, last := g.on[0], g.on[len(g.on)-1]
	if !l.clickAt(first.Onset) {
		from := first.Onset
		if first.starts == BySlur {
			// What was before is in the ear's window for so long: a hum, a ring, a neighbor.
			from += leavesWindow / music.Seconds(first.pitch.Above(standardPitch))
		}
		n.Scoop = l.median(l.periodic(first, from+scoopTime), from, from+scoopTime, g) - n.Centre
	}
	n.Settle = l.settled(first, g, n.Centre)
	end := l.unclicked(last.Release)
	n.EndBend = l.median(last, end-endTime, end, g) - n.Centre
	if first.starts != BySlur {
		n.Attack = l.rise(first, n.LevelFrom+nineTenths)
		n.Rise = l.speaks(first, n.LevelFrom)
	} else {
		n.Dip = l.dip(first)
	}
	n.Step = l.step(*n)
	n.Decay = l.fall(last, n.LevelTo)
	n.Tail = l.tail(*n)
	n.Air = l.airBefore(first)
}

// leavesWindow is periods of a pitch until the one before has left the window through
// which it is heard.
const leavesWindow = 3

// clickAt reports whether a click sounds over the start of a note, or one is due that the note
// hides.
func (l *listening) clickAt(onset music.Seconds) bool {
	over := func(b contour.Burst) bool { return b.From < onset+scoopTime && b.To > onset-scoopTime }
	return slices.ContainsFunc(l.contour.Bursts, over) ||
		l.isClicked(contour.Burst{From: onset, To: onset + scoopTime})
}

// unclicked is the end of a note, or where a click comes into the ear's window over its end.
func (l *listening) unclicked(end music.Seconds) music.Seconds {
	for _, b := range l.contour.Bursts {
		if b.From < end && b.To > end-endTime {
			return b.From - clickReaches
		}
	}
	return end
}

// clickReaches is how long before a click the pitch is already heard with it.
const clickReaches = music.Seconds(0.04)

// median is the middle of a plateau's pitch between two moments, or of the
// whole plateau when there is nothing to hear between them.
func (l *listening) median(p plateau, from, to music.Seconds, g group) music.Cents {
	var x []float64
	for n := max(p.from, contour.Index(from)); n < min(p.to, contour.Index(to)+1); n++ {
		if f := l.contour.Frames[n]; f.Voiced() {
			x = append(x, float64(music.Between(standardPitch, f.Pitch)-g.pitch))
		}
	}
	if len(x) == 0 {
		return p.pitch - g.pitch
	}
	return music.Cents(dsp.Median(x))
}

// periodic is a plateau from where it begins to be periodic, before a moment: a start that is
// all breath, or in which somebody talks, has no pitch yet. None of it is the whole.
func (l *listening) periodic(p plateau, before music.Seconds) plateau {
	for n := p.from; n < min(p.to, contour.Index(before)+1); n++ {
		if l.contour.Frames[n].Confidence >= leastPeriodic {
			p.from = n
			return p
		}
	}
	p.from = p.to // so that the middle of it all is taken
	return p
}

// leastPeriodic is how periodic a sound is at least that has a pitch of its own.
const leastPeriodic = 0.7

const (
	settledWithin = music.Cents(20)
	settledFor    = 10 // frames
)

// settled is the time until the pitch stays near the centre.
func (l *listening) settled(p plateau, g group, centre music.Cents) music.Seconds {
	near := 0
	for n := p.from; n < p.to; n++ {
		f := l.contour.Frames[n]
		off := music.Between(standardPitch, f.Pitch) - g.pitch - centre
		if !f.Voiced() || math.Abs(float64(off)) > float64(settledWithin) {
			near = 0
			continue
		}
		if near++; near == settledFor {
			return max(0, contour.Time(n-settledFor+1)-p.Onset)
		}
	}
	return p.length()
}

// A tenth and nine tenths of an amplitude, in dB.
const (
	nineTenths = music.Decibels(-0.915)
	aTenth     = music.Decibels(-20)
	aHalf      = music.Decibels(-6)
	shapeReach = music.Seconds(0.5)
	shapeHolds = music.Seconds(0.05) // for so long a note is softer, when it has faded
)

// rise is the time from the onset, a tenth of its loudness, to a level.
func (l *listening) rise(p plateau, level music.Decibels) music.Seconds {
	w := window(p.pitch)
	for at := p.Onset; at < min(p.Release, p.Onset+shapeReach); at += contour.EnvelopeStep {
		if l.fine.Level(at, w) >= level {
			return at - p.Onset
		}
	}
	return min(p.length(), shapeReach)
}

// speaks is the time from a tenth of a level to half of it. What else sounds may cover the
// beginning: the rest of it says how long it took, as if the sound rose evenly; 0 where there
// is no rest.
func (l *listening) speaks(p plateau, level music.Decibels) music.Seconds {
	w := window(p.pitch)
	seen := l.fine.Level(p.Onset-coverBefore, w) + aboveQuiet
	if p.starts != AfterSilence || seen <= level+aTenth {
		return l.rise(p, level+aHalf)
	}
	if seen >= level+aHalf-leastRise {
		return 0
	}
	half := p.Onset + l.rise(p, level+aHalf)
	from := half
	for from > p.Onset-coverBefore && l.fine.Level(from, w) > seen {
		from -= contour.EnvelopeStep
	}
	tenth, heard, to := amplitude(aTenth), amplitude(seen-level), amplitude(aHalf)
	rise := max(half-p.Onset, (half-from)*music.Seconds((to-tenth)/(to-heard)))
	if seen >= level+aHalf-fairRise && rise < quickRise {
		return 0 // too little of it is seen to call it quick
	}
	return rise
}

// What covers a note's beginning is looked at so long before it; of its rise so much at least
// is to stand out.
const (
	coverBefore = music.Seconds(0.04)
	leastRise   = music.Decibels(3)
	fairRise    = music.Decibels(6)
	quickRise   = music.Seconds(0.06)
)

// dip is how deep the loudness dips where one pitch passes to another, all in all or
// of the upper harmonics alone, whichever is deeper: a room hides the one sooner.
func (l *listening) dip(p plateau) (deepest music.Decibels) {
	for _, e := range []contour.Envelope{l.fine, l.bright} {
		depth, _ := dipIn(e, p.Onset, dipAround, window(p.pitch))
		deepest = max(deepest, depth)
	}
	return deepest
}

// dipAround is how far around a change of pitch the tongue is looked for.
const dipAround = music.Seconds(0.12)

// step is the greatest change of a note's loudness between two stretches of it, each
// even in itself.
func (l *listening) step(n Note) music.Decibels {
	from, to := contour.Index(n.Onset+settle), contour.Index(n.Release-settle)
	to = min(to, len(l.contour.Frames))
	levels := make([]float64, 0, max(0, to-from)) // from from on
	for n := from; n < to; n++ {
		levels = append(levels, float64(l.contour.Frames[n].Level))
	}
	found := l.take.jumps.WhileTrue(
		from,
		true,
		func(j jump) bool { return slices.Equal(j.levels, levels) },
		func() jump { return jumpIn(levels) },
	)
	if l.isRoomsStep(n, found.by, from+found.at) {
		return 0
	}
	return found.by
}

// jump is the greatest change between two stretches of some levels, and where.
type jump struct {
	levels []float64
	by     music.Decibels
	at     int
}

func jumpIn(levels []float64) jump {
	over, gap := contour.Index(jumpOver), contour.Index(jumpTakes)
	most := jump{levels: levels}
	even := func(x []float64) bool {
		return music.Decibels(dsp.Quantile(x, 0.9)-dsp.Quantile(x, 0.1)) < jumpEven
	}
	for at := over; at+gap+over < len(levels); at += gap / 2 {
		before, after := levels[at-over:at], levels[at+gap:at+gap+over]
		by := music.Decibels(dsp.Median(after)) - music.Decibels(dsp.Median(before))
		if max(by, -by) > max(most.by, -most.by) && even(before) && even(after) {
			most.by, most.at = by, at
		}
	}
	return most
}

// isRoomsStep reports whether a step of a note's loudness, at a frame, is one harmonic's alone.
func (l *listening) isRoomsStep(n Note, by music.Decibels, frame int) bool {
	at, pitch := contour.Time(frame), music.Between(standardPitch, n.F0)
	if pitch < lowestApart || max(by, -by) < cancelLeast {
		return false
	}
	strongest, others, ok := change(
		l.harmonicsIn(pitch, at-jumpOver, at),
		l.harmonicsIn(pitch, at+jumpTakes, at+jumpTakes+jumpOver),
	)
	way := math.Copysign(1, float64(strongest))
	return ok && way*float64(others) < cancelShare*math.Abs(float64(strongest))
}

// A step of the loudness takes no longer than jumpTakes, and lasts.
const (
	jumpOver  = music.Seconds(0.4)
	jumpTakes = music.Seconds(0.12)
	jumpEven  = music.Decibels(2.5)
)

// fall is the time from nine tenths of a level to a tenth, at the end.
func (l *listening) fall(p plateau, level music.Decibels) music.Seconds {
	w := window(p.pitch)
	from := p.Release
	for ; from > max(p.Onset, p.Release-2*shapeReach); from -= contour.EnvelopeStep {
		if l.fine.Level(from, w) >= level+nineTenths {
			break
		}
	}
	// The last moment above it counts: a ring beats on its way down.
	last := from
	for to := from; to < p.Release+shapeReach && to < last+shapeHolds; to += contour.EnvelopeStep {
		if l.fine.Level(to, w) > level+aTenth {
			last = to
		}
	}
	return last - from
}

// tail is the slope of the loudness over a note's last quarter, dB a second.
func (l *listening) tail(n Note) float64 {
	end := n.Release - endTime/2
	var t, y []float64
	for k := contour.Index(n.Release - (n.Release-n.Onset)/4); k < min(len(l.contour.Frames), contour.Index(end)); k++ {
		t, y = append(t, float64(contour.Time(k))), append(y, float64(l.contour.Frames[k].Level))
	}
	return dsp.TheilSen(t, y)
}

const (
	airAbove   = music.Decibels(6) // the quiet of the take
	airLongest = music.Seconds(0.8)
	// speaksEarly is the frames by which the ear may hear a tone before it stands
	// out: shorter air than that is not told from it.
	speaksEarly = 4
)

// airBefore is how long air alone was heard before a note spoke.
func (l *listening) airBefore(p plateau) music.Seconds {
	if p.starts != AfterSilence {
		return 0
	}
	floor := l.quiet() + airAbove
	from := contour.Index(p.Onset) - 1
	for skipped := 0; from > 0 && l.contour.Frames[from].Voiced() && skipped < speaksEarly; skipped++ {
		from-- // the ear's window hears the tone a little ahead
	}
	n := from
	for n >= 0 && n > from-contour.Index(airLongest) && !l.contour.Frames[n].Voiced() &&
		l.contour.Frames[n].Level > floor {
		n--
	}
	if silent := from - n; silent > speaksEarly {
		return p.Onset - contour.Time(n)
	}
	return 0
}

// changedWithin is how near a new note must be to count as reached.
const changedWithin = music.Cents(30)

// change is the time from leaving the note before to reaching this one.
func (l *listening) change(g group, n Note) music.Seconds {
	before := l.Notes[len(l.Notes)-1]
	if !before.Played || g.on[0].Onset-before.Release > longEnough {
		return 0
	}
	p := g.on[0]
	for k := p.from; k < p.to; k++ {
		f := l.contour.Frames[k]
		off := music.Between(standardPitch, f.Pitch) - g.pitch - n.Centre
		if f.Voiced() && math.Abs(float64(off)) <= float64(changedWithin) {
			return max(0, contour.Time(k)-before.Release-p.hidden)
		}
	}
	return p.length()
}

// Waver is looked for between these rates; a note must hold three of its
// slowest turns.
const (
	slowestWaver  = 2.
	fastestWaver  = 9.
	waverStep     = 0.25
	shortestWaver = 1.2 // seconds
	// Vibrato is regular: most of the waver's power lies near its peak.
	vibratoShare  = 0.7
	vibratoWidth  = 0.75 // Hz either way
	vibratoSlow   = 3.5
	vibratoFast   = 7.5
	leastVibrato  = music.Cents(8)
	hannAmplitude = 0.5 // mean of a Hann window
)

// waver is the strongest regular movement of a detrended pitch. at are the
// moments, evenly spaced but for gaps.
func waver(at, cents []float64) (rate float64, depth music.Cents, vibrato bool) {
	if len(at) == 0 || at[len(at)-1]-at[0] < shortestWaver {
		return 0, 0, false
	}
	over := rates{slowestWaver, fastestWaver, waverStep}
	amplitudes := amplitudesOf(at, cents, over)
	best := 0.
	for k, f := range over.all() {
		if amplitudes[k] > best {
			best, rate = amplitudes[k], f
		}
	}
	var near, all float64
	for k, a := range amplitudes {
		all += a * a
		if math.Abs(slowestWaver+float64(k)*waverStep-rate) <= vibratoWidth {
			near += a * a
		}
	}
	vibrato = all > 0 && near/all > vibratoShare && rate >= vibratoSlow && rate <= vibratoFast &&
		music.Cents(best) >= leastVibrato
	return rate, music.Cents(best), vibrato
}
