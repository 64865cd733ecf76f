package contour

import (
	"math"

	"earlychorus/core/music"
)

// A tone nearly all of whose strength lies in its even harmonics repeats
// itself, nearly, every half period, and the path may take it for its octave.
// A neighbour's softer note beside it looks alike from frame to frame: both make
// twice the period a little clearer than the period. What tells them apart is
// where the strength between the harmonics lies: a fundamental brings a whole
// series with it, another note only its own. So each held pitch is asked, once,
// whether a half or a third of it sounds underneath.
const (
	heldFrames   = 6 // shorter pitches are not asked: cracks really are that high
	momentsAsked = 3
	// The fundamental of a series sounds when it is within this of the strongest
	// partial and stands out of what lies between the partials.
	partialBelow = 26. // dB
	partialAbove = 12. // dB
	// The others belong to it when they are hardly softer than the partials beside
	// them; a tube's roughness leaves traces between its partials, but fainter ones.
	partialBeside = 15.  // dB
	partialsTo    = 5000 // Hz: looked at up to here
)

// lowerWhereTheyAre moves held pitches down that are the second or third
// partial of the tone that really sounds.
func (l *listener) lowerWhereTheyAre(frames []Frame, lowest music.Hertz, quiet rest) {
	r := newRefiner(l.x, l.rate)
	for from := 0; from < len(frames); {
		to := heldUntil(frames, from)
		if to-from >= heldFrames {
			for _, part := range []int{2, 3} {
				if !quiet.isHumPitch(frames[from].Pitch/music.Hertz(part)) && r.soundsUnder(frames[from:to], from, part, lowest) {
					for n := from; n < to; n++ {
						frames[n].Pitch /= music.Hertz(part)
					}
					break
				}
			}
		}
		from = max(to, from+1)
	}
}

const heldSpan = music.Cents(60) // from frame to frame

// heldUntil returns where the pitch that begins at from ends.
func heldUntil(frames []Frame, from int) int {
	to := from
	for to < len(frames) && frames[to].Voiced() {
		if to > from {
			if off := music.Between(frames[to-1].Pitch, frames[to].Pitch); max(off, -off) > heldSpan {
				break
			}
		}
		to++
	}
	return to
}

// soundsUnder reports whether a part (half, third) of a held pitch sounds at
// most of the moments asked.
func (r *refiner) soundsUnder(held []Frame, first, part int, lowest music.Hertz) bool {
	yes := 0
	for k := range momentsAsked {
		n := len(held) * (2*k + 1) / (2 * momentsAsked)
		pitch := held[n].Pitch / music.Hertz(part)
		if pitch < lowest {
			return false
		}
		if r.hasSeries(pitch, part, Time(first+n)) {
			yes++
		}
	}
	return 2*yes > momentsAsked
}

// hasSeries reports whether a pitch's own partials sound besides those of its
// multiple: the fundamental and at least half of the others.
func (r *refiner) hasSeries(pitch music.Hertz, multiple int, at music.Seconds) bool {
	// The window fits half the pitch, so that halfway between partials is a null too.
	r.window(pitch/2, at)
	most := min(4*multiple, int(min(partialsTo, highestHarmonic*r.rate)/float64(pitch)))
	level := make([]float64, most+1) // of partials, dB; 0 is not used
	strongest, between := math.Inf(-1), 0.
	for h := 1; h <= most; h++ {
		power, _ := r.harmonic(2*h, pitch/2)
		trace, _ := r.harmonic(2*h-1, pitch/2)
		level[h] = 10 * math.Log10(power+1e-30)
		strongest = max(strongest, level[h])
		between += trace / float64(most)
	}
	if level[1] < max(strongest-partialBelow, 10*math.Log10(between+1e-30)+partialAbove) {
		return false
	}
	own, sounding := 0, 0
	for h := multiple + 1; h <= most; h++ {
		below, above := h/multiple*multiple, (h/multiple+1)*multiple
		if h == below || above > most {
			continue
		}
		own++
		share := float64(h-below) / float64(multiple)
		if level[h] > (1-share)*level[below]+share*level[above]-partialBeside {
			sounding++
		}
	}
	return own >= 2 && 2*sounding >= own+1
}
