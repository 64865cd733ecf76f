package contour

import (
	"math"

	"earlychorus/core/music"
)

// A tone nearly all of whose strength lies in its even harmonics repeats
// itself, nearly, every half period, and the path may take it for its octave. A
// rough tone, or a neighbour's softer note beside it, looks alike from frame to
// frame: both make twice the period a little clearer than the period. What tells
// them apart is how many partials there are, not how strong: a series has its
// members all the way up. So each held pitch is asked, once, whether a half or a
// third of it sounds underneath, and whether it is itself too low, by the
// contrast between the partials that its multiple shares and its own. Strengths
// are compressed to their fourth root, so that one strong partial does not
// outvote the others.
const (
	heldFrames   = 6 // shorter pitches are not asked: cracks really are that high
	momentsAsked = 5
	// Between the two lies what sampled instruments and ours never reached in a dry room:
	// at most 0.29 where the lower pitch is the true one, at least 0.42 where it is not,
	// down to a signal as loud as the noise (benches/EAR.md). Noise in a room that rings
	// hides partials of the lower one: there it reached 0.41.
	lowerSounds = 0.41
	sharedOnly  = 0.36
	compression = 0.25 // of power
	partialsTo  = 6700 // Hz: looked at up to here
	// What lies halfway between the partials is noise, and so much of it is taken
	// off every partial.
	noiseTaken = 2.
)

// settleOctaves moves held pitches to the octave or twelfth where their
// partials say they are.
func (r *refiner) settleOctaves(frames []Frame, e Ear, quiet rest) {
	for from := 0; from < len(frames); {
		to := heldUntil(frames, from)
		if to-from >= heldFrames {
			if ratio := r.octaveOf(frames, from, to, e, quiet); ratio != 1 {
				for n := from; n < to; n++ {
					frames[n].Pitch *= music.Hertz(ratio)
				}
			}
		}
		from = max(to, from+1)
	}
}

// octaveOf returns what the pitch held from from to to must be multiplied by: a
// half or a third when that is what sounds, 2 or 3 when only every second or
// third of its partials does, else 1.
func (r *refiner) octaveOf(frames []Frame, from, to int, e Ear, quiet rest) float64 {
	held := frames[from].Pitch
	for _, part := range []int{2, 3} {
		lower := held / music.Hertz(part)
		if lower >= e.Lowest && !quiet.isHumPitch(lower) && r.contrast(frames, from, to, lower, part) < lowerSounds {
			return 1 / float64(part)
		}
	}
	for _, part := range []int{2, 3} {
		if held*music.Hertz(part) <= e.Highest && r.contrast(frames, from, to, held, part) > 1-sharedOnly {
			return float64(part)
		}
	}
	return 1
}

var heldSpan = music.Within(60) // from frame to frame

// heldUntil returns where the pitch that begins at from ends.
func heldUntil(frames []Frame, from int) int {
	to := from
	for to < len(frames) && frames[to].Voiced() {
		if to > from && !heldSpan.Holds(frames[to-1].Pitch, frames[to].Pitch) {
			break
		}
		to++
	}
	return to
}

// contrast asks at several moments of a held pitch and returns the mean.
// pitch is what is asked about at the first frame; it follows the frames.
func (r *refiner) contrast(frames []Frame, from, to int, pitch music.Hertz, multiple int) float64 {
	moments := min(momentsAsked, (to-from)/2)
	share := pitch / frames[from].Pitch
	var sum float64
	for k := range moments {
		n := from + (to-from)*(2*k+1)/(2*moments)
		sum += r.contrastOf(contrastAsked{n, frames[n].Pitch * share, multiple}) / float64(moments)
	}
	return sum
}

// contrastAsked is a frame, a pitch it may have, and a multiple of that.
type contrastAsked struct {
	frame    int
	pitch    music.Hertz
	multiple int
}

// contrastOf is contrastAt for a frame, asked once.
func (r *refiner) contrastOf(a contrastAsked) float64 {
	c, ok := r.contrasts[a]
	if !ok {
		if r.contrasts == nil {
			r.contrasts = map[contrastAsked]float64{}
		}
		c = r.contrastAt(a.pitch, a.multiple, Time(a.frame))
		r.contrasts[a] = c
	}
	return c
}

// contrastAt compares the partials of pitch that its multiple has too (counted
// plus) with those it alone would have (counted minus): 1 when only the
// multiple sounds, about 0 for a tone with all its partials. It is 1, too, when
// there is nothing to go by.
func (r *refiner) contrastAt(pitch music.Hertz, multiple int, at music.Seconds) float64 {
	most := min(4*multiple, int(min(partialsTo, highestHarmonic*r.rate)/float64(pitch)))
	if most <= multiple {
		return 1
	}
	// The window fits half the pitch, so that halfway between partials is a null too.
	r.window(pitch/2, at)
	power, between := r.powers(pitch/2, 2*most), 0.
	for h := 1; h <= most; h++ {
		between += power[2*h-1] / float64(most)
	}
	var plus, minus float64
	for h := 1; h <= most; h++ {
		p := math.Pow(max(0, power[2*h]-noiseTaken*between), compression)
		if h%multiple == 0 {
			plus += p
		} else {
			minus += p / float64(multiple-1)
		}
	}
	if plus+minus == 0 {
		return 1
	}
	return (plus - minus) / (plus + minus)
}
