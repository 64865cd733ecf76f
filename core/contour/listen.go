package contour

import (
	"earlychorus/core/audio"
	"earlychorus/core/music"
)

// Frames between two that agree this well are taken to lie between them.
const (
	agreeLevel   = music.Decibels(2)
	agreeClarity = 0.85
	agreeMass    = 0.9
	// widestStride is the frames from one that is listened to in any case to the
	// next: no longer than the shortest break worth naming.
	widestStride = 4
)

var agreePitch = music.Within(30)

const candidatesAFrame = 4 // about, for the memory set aside

// hearing is a take's frames being listened to.
type hearing struct {
	*finder
	levels []music.Decibels
	quiet  rest
	frames []frame
	slab   []candidate // what the frames' candidates lie in
}

// listen finds every frame's candidates. Frames that can only be rests stay
// empty and cost nothing. Every fourth frame is listened to first; those
// halfway between, and then the rest, only where those beside them disagree.
func (f *finder) listen(asker audio.Asker, levels []music.Decibels, quiet rest) ([]frame, error) {
	h := hearing{
		finder: f,
		levels: levels,
		quiet:  quiet,
		frames: make([]frame, len(levels)),
		slab:   make([]candidate, 0, candidatesAFrame*len(levels)),
	}
	for stride := widestStride; stride > 0; stride /= 2 {
		step, first := 2*stride, stride
		if stride == widestStride {
			step, first = stride, 0
		}
		for n := first; n < len(levels); n += step {
			if n%256 < step && asker.Err() != nil {
				return nil, asker.Err()
			}
			if levels[n] >= quiet.gate && (stride == widestStride || !h.fillIn(n, stride)) {
				h.keep(n, f.at(n))
			}
		}
	}
	return h.frames, nil
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

// fillIn gives frame n the one candidate that the frames apart before and after
// agree on, and reports whether they do and the loudness between them is even.
func (h *hearing) fillIn(n, apart int) bool {
	before, after := n-apart, n+apart
	if before < 0 || after >= len(h.frames) {
		return false
	}
	a, b := likeliest(h.frames[before].candidates), likeliest(h.frames[after].candidates)
	if min(a.mass, b.mass) < agreeMass || min(a.clarity, b.clarity) < agreeClarity {
		return false
	}
	if !agreePitch.Holds(a.pitch, b.pitch) {
		return false
	}
	low, high := min(h.levels[before], h.levels[after])-agreeLevel, max(h.levels[before], h.levels[after])+agreeLevel
	for k := before + 1; k < after; k++ {
		if h.levels[k] < low || h.levels[k] > high {
			return false
		}
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
