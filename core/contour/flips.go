package contour

import (
	"math"

	"earlychorus/core/music"
)

// A note that goes to one of its own partials and comes back to just where it was
// may have cracked, or the path may have slipped: a room's ring, a clipped
// microphone and noise strengthen one partial for a moment. Its other partials tell:
// in a crack they are gone.
const (
	longestFlip   = 30 // frames
	shortestFlip  = 2
	flipSides     = music.Cents(60) // how near the pitches on both sides are
	flipNear      = music.Cents(45) // to the partial
	highestFlip   = 6               // partial
	othersRemain  = 0.4             // contrast below which the other partials still sound
	othersMissing = 0.6             // contrast above which a lower pitch has no partials of its own
)

// settleFlips puts short visits to a partial back where the note's other partials
// say that it did not go.
func (r *refiner) settleFlips(frames []Frame) {
	for from := 1; from < len(frames); {
		to := heldUntil(frames, from)
		if back := r.flipOf(frames, from, to); back != 1 {
			for n := from; n < to; n++ {
				frames[n].Pitch *= music.Hertz(back)
			}
		}
		from = max(to, from+1)
	}
}

// flipOf returns what the pitch of frames from..to must be multiplied by to be the
// note's around it; 1 where it is no flip.
func (r *refiner) flipOf(frames []Frame, from, to int) float64 {
	if to-from < shortestFlip || to-from > longestFlip || to >= len(frames) {
		return 1
	}
	before, after := frames[from-1].Pitch, frames[to].Pitch
	if before == 0 || after == 0 || apart(before, after) > flipSides {
		return 1
	}
	here := frames[(from+to)/2].Pitch
	if up := math.Round(float64(here / before)); up >= 2 && up <= highestFlip &&
		apart(before*music.Hertz(up), here) < flipNear &&
		r.contrast(frames, from, to, frames[from].Pitch/music.Hertz(up), int(up)) < othersRemain {
		return 1 / up
	}
	if down := math.Round(float64(before / here)); down >= 2 && down <= highestFlip &&
		apart(before/music.Hertz(down), here) < flipNear &&
		r.contrast(frames, from, to, frames[from].Pitch, int(down)) > othersMissing {
		return down
	}
	return 1
}

func apart(a, b music.Hertz) music.Cents {
	off := music.Between(a, b)
	return max(off, -off)
}
