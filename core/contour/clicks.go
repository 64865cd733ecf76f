package contour

import (
	"math"

	"earlychorus/core/music"
)

// A click is a burst that stands out of the loudest that sounds before and
// after it, for longer than a low note's period, and is gone within
// clickLongest: a metronome, a key, a chair. A note's onset stands out too, but
// does not go; a low note's pulses do not stand out of each other.
const (
	clickBlock    = 0.004 // seconds
	clickLongest  = 0.048
	clickRises    = 6. // dB above what is around
	clickAround   = 0.052
	clickMargin   = 2.   // dB: this near to what is around, a burst is over
	quietestBurst = -60. // dB below full scale
)

const squeakLongest = 0.22

// clickFinder finds the clicks of a sound as it comes in, and the other bursts. It looks
// at the sound and at its slope, in which a click's high ring stands out of a low note's
// pulses.
type clickFinder struct {
	rate           float64
	block          int       // samples
	levels, slopes []float64 // of whole blocks
	last           float64   // the sample before the next block
	plain, sloping burstFinder
	squeaks        burstFinder
}

func newClickFinder(rate int) *clickFinder {
	longest := int(clickLongest / clickBlock)
	return &clickFinder{
		rate:    float64(rate),
		block:   max(1, int(clickBlock*float64(rate))),
		plain:   burstFinder{longest: longest},
		sloping: burstFinder{longest: longest},
		squeaks: burstFinder{longest: int(squeakLongest / clickBlock)},
	}
}

// advance looks at the blocks that are whole by now; x is the sound from its beginning,
// and all of it when it has ended.
func (f *clickFinder) advance(x []float64, ended bool) {
	for at := len(f.levels) * f.block; at+f.block <= len(x); at += f.block {
		part := x[at : at+f.block]
		f.levels = append(f.levels, blockLevel(part))
		f.slopes = append(f.slopes, slopeLevel(part, f.last, f.rate))
		f.last = part[f.block-1]
	}
	f.plain.look(f.levels, ended)
	f.sloping.look(f.slopes, ended)
	f.squeaks.look(f.slopes, ended)
}

// seconds puts what was found from the first-th on in seconds.
func (f *clickFinder) seconds(of burstFinder, first int) []stretch {
	out := make([]stretch, 0, len(of.found)-first)
	for _, s := range of.found[first:] {
		out = append(out, stretch{s.from * float64(f.block) / f.rate, s.to * float64(f.block) / f.rate})
	}
	return out
}

// horizon is the moment from which on more may be found, in seconds.
func (f *clickFinder) horizon(of burstFinder) float64 {
	return float64(max(0, of.next-1)) * float64(f.block) / f.rate
}

// bursts returns every burst up to a squeak's length, in order.
func (f *clickFinder) bursts() []Burst {
	var out []Burst
	at := music.Seconds(float64(f.block) / f.rate)
	for _, s := range f.squeaks.found {
		out = append(out, Burst{music.Seconds(s.from+1) * at, music.Seconds(s.to) * at})
	}
	return out
}

// bursts returns the bursts among levels, counted in blocks.
func bursts(levels []float64, longest int) []stretch {
	f := burstFinder{longest: longest}
	f.look(levels, true)
	return f.found
}

// burstFinder finds bursts among levels that grow. What it found stays.
type burstFinder struct {
	longest int       // in blocks
	next    int       // the first level that was not looked at yet
	found   []stretch // in blocks
}

// look goes on as far as what is around a burst is known, or to the end.
func (f *burstFinder) look(levels []float64, ended bool) {
	around := int(clickAround / clickBlock)
	n := max(1, f.next)
	for ; n < len(levels) && (ended || n+f.longest+around <= len(levels)); n++ {
		if levels[n] < quietestBurst {
			continue
		}
		before := loudest(levels[max(0, n-1-around):max(0, n-1)]) // it may begin late in the block before
		if levels[n] < before+clickRises {
			continue
		}
		later := min(len(levels), n+f.longest)
		base := max(
			before,
			loudest(levels[later:min(len(levels), later+around)]),
		) // on the beat a note may begin under it
		peak, end := levels[n], n+1
		for end < later && (levels[end] > base+clickMargin || levels[end] > peak) {
			peak = max(peak, levels[end])
			end++
		}
		if peak < base+clickRises || end == later {
			continue // it stays: the onset of a note
		}
		f.found = append(f.found, stretch{float64(n - 1), float64(end)})
		n = end
	}
	f.next = n
}

// blockLevels is the level of each whole block, in dB.
func blockLevels(x []float64, block int) []float64 {
	out := make([]float64, len(x)/block)
	for n := range out {
		out[n] = blockLevel(x[n*block : (n+1)*block])
	}
	return out
}

func blockLevel(x []float64) float64 { return 10 * math.Log10(energy(x)/float64(len(x))+1e-12) }

// slopeLevel is the level of a block's slope behind the sample before it, in dB, such
// that a tone of slopeUnit keeps its own.
func slopeLevel(x []float64, last, rate float64) float64 {
	unit := rate / (2 * math.Pi * slopeUnit)
	var sum float64
	for _, v := range x {
		d := v - last
		sum += d * d
		last = v
	}
	return 10 * math.Log10(sum*unit*unit/float64(len(x))+1e-12)
}

const slopeUnit = 1000 // Hz

// loudest is -120 of none. The comparison is written out, since it is asked of every few
// milliseconds and the built-in one is a call in the browser.
func loudest(levels []float64) float64 {
	if len(levels) == 0 {
		return -120
	}
	top := levels[0]
	for _, v := range levels[1:] {
		if v > top {
			top = v
		}
	}
	return top
}
