package contour

import (
	"context"

	"earlychorus/core/music"
)

// A frame between two that agree this well is taken to lie between them.
const (
	agreePitch   = music.Cents(30)
	agreeLevel   = music.Decibels(2)
	agreeClarity = 0.85
	agreeMass    = 0.9
)

const candidatesAFrame = 4 // about, for the memory set aside

// hearing is a take's frames being listened to, two at a time.
type hearing struct {
	*finder
	levels  []music.Decibels
	quiet   rest
	frames  []frame
	slab    []candidate // what the frames' candidates lie in
	waiting int         // a frame waiting for a second one; -1 for none
	a, b    []candidate
}

// listen finds every frame's candidates. Frames that can only be rests stay
// empty and cost nothing. Every other frame is listened to first; the ones
// between only where those beside them disagree.
func (f *finder) listen(ctx context.Context, levels []music.Decibels, quiet rest) ([]frame, error) {
	h := hearing{
		finder: f, levels: levels, quiet: quiet, frames: make([]frame, len(levels)), waiting: -1,
		slab: make([]candidate, 0, candidatesAFrame*len(levels)),
	}
	for first := range 2 {
		for n := first; n < len(levels); n += 2 {
			if n%200 < 2 && ctx.Err() != nil {
				return nil, ctx.Err()
			}
			if levels[n] >= quiet.gate && !(first == 1 && h.fillIn(n)) {
				h.take(n)
			}
		}
		h.flush()
	}
	return h.frames, nil
}

func (h *hearing) take(n int) {
	if h.waiting < 0 {
		h.waiting = n
		return
	}
	a, b := h.pair(h.waiting, n, h.a[:0], h.b[:0])
	h.keep(h.waiting, a)
	h.keep(n, b)
	h.a, h.b, h.waiting = a.candidates, b.candidates, -1
}

func (h *hearing) flush() {
	if h.waiting >= 0 {
		a, _ := h.pair(h.waiting, -1, h.a[:0], nil)
		h.keep(h.waiting, a)
		h.waiting = -1
	}
}

// keep copies what was found into the slab, without the hum.
func (h *hearing) keep(n int, f frame) {
	from := len(h.slab)
	for _, c := range f.candidates {
		if !h.quiet.isHum(c.pitch, h.levels[n]) {
			h.slab = append(h.slab, c)
		}
	}
	h.frames[n] = frame{h.slab[from:len(h.slab):len(h.slab)], f.best}
}

// fillIn gives frame n the one candidate that its neighbours agree on, and
// reports whether they do.
func (h *hearing) fillIn(n int) bool {
	if n == 0 || n+1 >= len(h.frames) {
		return false
	}
	a, b := likeliest(h.frames[n-1].candidates), likeliest(h.frames[n+1].candidates)
	if min(a.mass, b.mass) < agreeMass || min(a.clarity, b.clarity) < agreeClarity {
		return false
	}
	if off := music.Between(a.pitch, b.pitch); max(off, -off) > agreePitch {
		return false
	}
	low, high := min(h.levels[n-1], h.levels[n+1])-agreeLevel, max(h.levels[n-1], h.levels[n+1])+agreeLevel
	if h.levels[n] < low || h.levels[n] > high {
		return false
	}
	c := candidate{pitch: (a.pitch + b.pitch) / 2, clarity: (a.clarity + b.clarity) / 2, mass: (a.mass + b.mass) / 2}
	h.keep(n, frame{[]candidate{c}, c.clarity})
	return true
}

// likeliest returns the candidate with the greatest mass; none for none.
func likeliest(c []candidate) candidate {
	var best candidate
	for _, v := range c {
		if v.mass >= best.mass {
			best = v
		}
	}
	return best
}
