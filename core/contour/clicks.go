package contour

import (
	"math"
	"slices"
)

// A click is a burst that stands out of what sounds before and after it and is
// gone within clickLongest: a metronome, a key, a chair. A note's onset stands
// out too, but does not go.
const (
	clickBlock    = 0.004 // seconds
	clickLongest  = 0.048
	clickRises    = 6. // dB above what is around
	clickAround   = 0.052
	clickMargin   = 2.   // dB: this near to what is around, a burst is over
	quietestBurst = -60. // dB below full scale
)

// softenClicks turns clicks in x down to the loudness around them, in place,
// and returns where they were. A pitch beside a click is then heard through it,
// and a click alone is not a note.
func softenClicks(x []float64, rate float64) []stretch {
	block := max(1, int(clickBlock*rate))
	levels := blockLevels(x, block)
	around := int(clickAround / clickBlock)
	longest := int(clickLongest / clickBlock)
	var found []stretch
	for n := 1; n < len(levels); n++ {
		before := median(levels[max(0, n-around):n])
		if levels[n] < quietestBurst || levels[n] < before+clickRises {
			continue
		}
		end := n + 1
		for end < len(levels) && end-n <= longest && levels[end] > before+clickMargin {
			end++
		}
		if end-n > longest || end >= len(levels) {
			continue // it stays: the onset of a note
		}
		soften(x, levels, block, n, end, before)
		found = append(found, stretch{float64(n*block) / rate, float64(end*block) / rate})
		n = end
	}
	return found
}

func blockLevels(x []float64, block int) []float64 {
	out := make([]float64, len(x)/block)
	for n := range out {
		var sum float64
		for _, v := range x[n*block : (n+1)*block] {
			sum += v * v
		}
		out[n] = 10 * math.Log10(sum/float64(block)+1e-12)
	}
	return out
}

// soften brings blocks from to to (excluded) down to the given level.
func soften(x, levels []float64, block, from, to int, level float64) {
	from = max(0, from-1) // the burst may begin late in the block before
	for n := from; n < to; n++ {
		over := levels[n] - level
		if over <= 0 {
			continue
		}
		gain := math.Pow(10, -over/20)
		for k := n * block; k < min(len(x), (n+1)*block); k++ {
			x[k] *= gain
		}
		levels[n] = level
	}
}

func median(x []float64) float64 {
	if len(x) == 0 {
		return -120
	}
	s := slices.Sorted(slices.Values(x))
	return s[len(s)/2]
}
