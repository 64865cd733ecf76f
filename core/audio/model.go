package audio

import (
	"math"
	"slices"
)

// A model is a recording that others are to copy: it begins with its sound, and is as loud as
// any other.
const (
	modelFrame  = 0.02 // s
	modelMargin = 0.15 // s left before and after the sound
	modelFloor  = -40. // dB below its loud frames: what is softer at the ends is the room
	modelLevel  = -20. // dB of full scale, of its loud frames
	modelPeak   = 0.89 // of full scale; -1 dB, so that no player's converter clips
	loudShare   = 0.95 // of frames are softer than what counts as loud
)

// Model returns a recording trimmed to its sound and leveled. One without sound is empty.
func (m Mono) Model() Mono {
	size := max(1, int(modelFrame*float64(m.Rate)))
	levels := make([]float64, 0, len(m.Samples)/size)
	for at := 0; at+size <= len(m.Samples); at += size {
		levels = append(levels, rms(m.Samples[at:at+size]))
	}
	loud := quantile(levels, loudShare)
	if loud < 1e-5 {
		return Mono{Rate: m.Rate}
	}
	floor := loud * math.Pow(10, modelFloor/20)
	sounds := func(x float64) bool { return x > floor }
	first := slices.IndexFunc(levels, sounds)
	last := len(levels) - 1
	for !sounds(levels[last]) {
		last--
	}
	margin := int(modelMargin * float64(m.Rate))
	from, to := max(0, first*size-margin), min(len(m.Samples), (last+1)*size+margin)
	out := Mono{Rate: m.Rate, Samples: slices.Clone(m.Samples[from:to])}
	peak := 0.
	for _, x := range out.Samples {
		peak = max(peak, math.Abs(x))
	}
	gain := min(math.Pow(10, modelLevel/20)/loud, modelPeak/peak)
	for n := range out.Samples {
		out.Samples[n] *= gain
	}
	return out
}

func rms(x []float64) float64 {
	sum := 0.
	for _, v := range x {
		sum += v * v
	}
	return math.Sqrt(sum / float64(len(x)))
}

// quantile is the value that a share of some lies below; 0 of none.
func quantile(x []float64, share float64) float64 {
	if len(x) == 0 {
		return 0
	}
	sorted := slices.Clone(x)
	slices.Sort(sorted)
	return sorted[min(len(sorted)-1, int(share*float64(len(sorted))))]
}
