package contour

import (
	"math"
	"slices"

	"earlychorus/core/audio"
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

// findClicks returns where the clicks of a sound are. It looks at the sound and
// at its slope, in which a click's high ring stands out of a low note's pulses.
func findClicks(x []float64, rate float64) []stretch {
	block := max(1, int(clickBlock*rate))
	longest := int(clickLongest / clickBlock)
	found := bursts(blockLevels(x, block), longest)
	found = append(found, bursts(slopeLevels(x, block, rate), longest)...)
	for n := range found {
		found[n].from *= float64(block) / rate
		found[n].to *= float64(block) / rate
	}
	return found
}

const squeakLongest = 0.22

// findBursts returns every burst up to a squeak's length, in order.
func findBursts(m audio.Mono) []Burst {
	rate := float64(m.Rate)
	block := max(1, int(clickBlock*rate))
	var out []Burst
	for _, s := range bursts(slopeLevels(m.Samples, block, rate), int(squeakLongest/clickBlock)) {
		at := music.Seconds(float64(block) / rate)
		out = append(out, Burst{music.Seconds(s.from+1) * at, music.Seconds(s.to) * at})
	}
	return out
}

// bursts returns the bursts among levels, counted in blocks.
func bursts(levels []float64, longest int) []stretch {
	around := int(clickAround / clickBlock)
	var found []stretch
	for n := 1; n < len(levels); n++ {
		if levels[n] < quietestBurst {
			continue
		}
		before := loudest(levels[max(0, n-1-around):max(0, n-1)]) // it may begin late in the block before
		if levels[n] < before+clickRises {
			continue
		}
		later := min(len(levels), n+longest)
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
		found = append(found, stretch{float64(n - 1), float64(end)})
		n = end
	}
	return found
}

// soften turns clicks in x down to the loudness around them, in place. A pitch
// beside a click is then heard through it, and a click alone is not a note.
func soften(x []float64, rate float64, clicks []stretch) {
	block := max(1, int(clickBlock*rate))
	around := int(clickAround * rate)
	for _, c := range clicks {
		from, to := max(0, int(c.from*rate)), min(len(x), int(c.to*rate))
		base := max(
			loudest(blockLevels(x[max(0, from-around):from], block)),
			loudest(blockLevels(x[to:min(len(x), to+around)], block)),
		)
		for at := from; at < to; at += block {
			part := x[at:min(to, at+block)]
			over := 10*math.Log10(energy(part)/float64(len(part))+1e-12) - base
			if over <= 0 {
				continue
			}
			gain := math.Pow(10, -over/20)
			for k := range part {
				part[k] *= gain
			}
		}
	}
}

// blockLevels is the level of each whole block, in dB.
func blockLevels(x []float64, block int) []float64 {
	out := make([]float64, len(x)/block)
	for n := range out {
		out[n] = 10 * math.Log10(energy(x[n*block:(n+1)*block])/float64(block)+1e-12)
	}
	return out
}

// slopeLevels is the level of the slope of each whole block, in dB, such that a
// tone of slopeUnit keeps its own.
func slopeLevels(x []float64, block int, rate float64) []float64 {
	out := make([]float64, len(x)/block)
	unit := rate / (2 * math.Pi * slopeUnit)
	last := 0.
	for n := range out {
		var sum float64
		for _, v := range x[n*block : (n+1)*block] {
			d := v - last
			sum += d * d
			last = v
		}
		out[n] = 10 * math.Log10(sum*unit*unit/float64(block)+1e-12)
	}
	return out
}

const slopeUnit = 1000 // Hz

func loudest(levels []float64) float64 {
	if len(levels) == 0 {
		return -120
	}
	return slices.Max(levels)
}
