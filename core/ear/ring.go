package ear

import (
	"slices"

	"earlychorus/core/contour"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// A room goes on sounding when its player has stopped: from there the loudness falls
// without a halt, as fast as a room lets it, until nothing is left.
const (
	ringFalls  = 25.                // dB a second, at least
	ringOver   = music.Seconds(0.2) // the stretch over which it is looked at
	ringStep   = music.Seconds(0.01)
	ringHalts  = 4                   // steps in which beats of the ring hold it up
	ringLeast  = music.Seconds(0.2)  // of it: less is the release
	ringDrops  = music.Decibels(8)   // all in all
	restDrops  = music.Decibels(14)  // before another note comes
	ringNew    = music.Seconds(0.05) // before it is heard, it has begun
	ringKnee   = music.Decibels(2.5) // in ringNext steps, and the loudness has begun to fall
	ringNext   = 5
	ringWindow = music.Seconds(0.03)  // of the loudness
	ringLeft   = music.Seconds(0.016) // of it, left to the note: a release takes that long
	chainGap   = music.Seconds(0.12)  // between sounds that go on from each other
)

// withoutRing ends the playing where its player stopped, and leaves out what the room
// made of it. An end that is to taper is left as it is.
func (l *listening) withoutRing(plateaus []plateau) (out []plateau) {
	if slices.ContainsFunc(l.Score.Rules, func(r scores.Rule) bool { return r.Measure == scores.TaperKey }) {
		return plateaus
	}
	for from := 0; from < len(plateaus); {
		to := from + 1
		for to < len(plateaus) && plateaus[to].Onset-plateaus[to-1].Release < chainGap {
			to++
		}
		end := l.stopped(plateaus[from].Onset, plateaus[to-1].Release, ringDrops)
		for n, p := range plateaus[from:to] {
			if n > 0 && p.Onset > end-ringLeft {
				continue // it begins in the ring
			}
			if from+n+1 < to {
				l.restAfter(&p, &plateaus[from+n+1])
			}
			if p.Release > end {
				p.endAt(end)
			}
			out = append(out, p)
		}
		from = to
	}
	return out
}

// restAfter ends a note where its player stopped, though it is heard until the next begins.
func (l *listening) restAfter(p, next *plateau) {
	until := p.Release - ringNew
	if end := l.stopped(p.Onset, until, restDrops); end < until {
		p.endAt(end)
		next.starts = AfterSilence
	}
}

// endAt ends a plateau before it was heard to.
func (p *plateau) endAt(end music.Seconds) {
	p.Release, p.to = end, min(p.to, max(p.from+1, contour.Index(end)))
}

// stopped is when what sounds between two moments began to die away, by so much at least.
func (l *listening) stopped(from, to music.Seconds, drops music.Decibels) music.Seconds {
	// The loudest from each step on, back from the end: a ring beats, and still dies away.
	var loudest []music.Decibels
	top := contour.Silence
	for at := to; at > from; at -= ringStep {
		if !l.burstsIn(at-ringWindow, at+ringWindow) { // a click over it halts nothing
			top = max(top, l.fine.Level(at, ringWindow))
		}
		loudest = append(loudest, top)
	}
	over := int(ringOver / ringStep)
	knee, halts := 0, 0
	for n := 0; n+over < len(loudest) && halts <= ringHalts; n++ {
		if float64(loudest[n+over]-loudest[n]) >= ringFalls*float64(ringOver) {
			knee, halts = n+over, 0
		} else {
			halts++
		}
	}
	if knee == 0 || loudest[knee]-loudest[0] < drops {
		return to
	}
	// The last stretch reaches back over the knee itself, where nothing falls yet.
	for knee > ringNext && loudest[knee]-loudest[knee-ringNext] < ringKnee {
		knee--
	}
	if end := to - music.Seconds(knee)*ringStep + ringLeft; to-end > ringLeast {
		return end
	}
	return to
}
