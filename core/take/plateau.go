package take

import (
	"math"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// plateau is a stretch of sound at one pitch, without a stop.
type plateau struct {
	from, to       int // frames, to excluded
	Onset, Release music.Seconds
	pitch          music.Cents // median, from A4 = 440
}

func (p plateau) length() music.Seconds { return p.Release - p.Onset }

const (
	// A pitch this far from the plateau so far, for this long, is a new one.
	newPlateau      music.Cents = 80
	plateauFrames               = 4 // 40 ms, the shortest break worth naming
	flickerFrames               = 2 // silences up to 20 ms are the tracker's
	referenceFrames             = 20
	longEnough                  = music.Seconds(0.15)
	edgeReach                   = music.Seconds(0.06)
	edgeBelow                   = music.Decibels(12)
	standardPitch               = music.StandardA4
)

// findPlateaus cuts the voiced frames into stretches of one pitch.
func findPlateaus(c contour.Contour, fine contour.Envelope) []plateau {
	b := builder{c: c, fine: fine}
	for n, f := range c.Frames {
		b.hear(n, f)
	}
	b.close()
	for n := range b.done {
		b.refineEdges(n)
	}
	return b.done
}

type builder struct {
	c       contour.Contour
	fine    contour.Envelope
	done    []plateau
	frames  []int     // frames of the plateau being built
	pitches []float64 // their pitches, cents
	away    []int     // frames that have left it, not yet long enough to be one
	awayAt  []float64
}

func (b *builder) hear(n int, f contour.Frame) {
	if !f.Voiced() {
		if last := b.last(); last >= 0 && n-last > flickerFrames {
			b.close()
		}
		return
	}
	cents := float64(music.Between(standardPitch, f.Pitch))
	if len(b.frames) == 0 || math.Abs(cents-b.reference()) <= float64(newPlateau) {
		b.away, b.awayAt = nil, nil // a short excursion is the tracker's or the air's
		b.frames, b.pitches = append(b.frames, n), append(b.pitches, cents)
		return
	}
	b.away, b.awayAt = append(b.away, n), append(b.awayAt, cents)
	if len(b.away) >= plateauFrames {
		away, at := b.away, b.awayAt
		b.close()
		for k := range away {
			b.hear(away[k], contour.Frame{Pitch: music.Cents(at[k]).Above(standardPitch)})
		}
	}
}

func (b *builder) last() int {
	if len(b.away) > 0 {
		return b.away[len(b.away)-1]
	}
	if len(b.frames) > 0 {
		return b.frames[len(b.frames)-1]
	}
	return -1
}

// reference is where the plateau has been lately, so that a drift is followed.
func (b *builder) reference() float64 {
	return dsp.Median(b.pitches[max(0, len(b.pitches)-referenceFrames):])
}

func (b *builder) close() {
	if len(b.frames) >= plateauFrames {
		from, to := b.frames[0], b.frames[len(b.frames)-1]+1
		b.done = append(b.done, plateau{
			from: from, to: to, Onset: contour.Time(from) - contour.Hop/2, Release: contour.Time(to) - contour.Hop/2,
			pitch: music.Cents(dsp.Median(b.pitches)),
		})
	}
	b.frames, b.pitches, b.away, b.awayAt = nil, nil, nil, nil
}

// refineEdges moves a plateau's ends that border on silence to where the
// loudness crosses, which is sharper than where periodicity is lost.
func (b *builder) refineEdges(n int) {
	p := &b.done[n]
	var levels []float64
	for _, f := range b.c.Frames[p.from:p.to] {
		levels = append(levels, float64(f.Level))
	}
	threshold := music.Decibels(dsp.Median(levels)) - edgeBelow
	if n == 0 || p.from-b.done[n-1].to > flickerFrames {
		p.Onset = b.fine.Crossing(p.Onset, edgeReach, threshold, true)
	}
	if n == len(b.done)-1 || b.done[n+1].from-p.to > flickerFrames {
		p.Release = b.fine.Crossing(p.Release, edgeReach, threshold, false)
	}
}

// firstLong returns the index of the first plateau long enough to be a note.
func firstLong(plateaus []plateau) int {
	for n, p := range plateaus {
		if p.length() >= longEnough {
			return n
		}
	}
	return 0
}
