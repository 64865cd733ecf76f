package synth

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/audio"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// addNoise adds white noise of the given level; 0 means none.
func addNoise(x []float64, level music.Decibels, chance *rand.Rand) {
	if level == 0 {
		return
	}
	gain := amplitude(level)
	for n := range x {
		x[n] += gain * chance.NormFloat64()
	}
}

// hiss is the noise of air, RMS 1: white noise with its top softened.
type hiss struct{ pole, gain, y float64 }

const hissCorner = 3500 // Hz

func newHiss(rate float64) hiss {
	a := 1 - math.Exp2(-2*math.Pi*hissCorner/rate/math.Ln2)
	// One pole leaves a/(2−a) of white noise's power.
	return hiss{pole: a, gain: math.Sqrt((2 - a) / a)}
}

func (h *hiss) next(chance *rand.Rand) float64 {
	h.y += h.pole * (chance.NormFloat64() - h.y)
	return h.gain * h.y
}

const (
	blowLevel  = music.Decibels(-14) // of air on the microphone, against a note
	burstShare = 0.6                 // of its time that a burst sounds
	burstEdge  = 0.03
	streamEdge = 0.08
)

// blow adds air alone: a stream, or bursts spread over the segment.
func (p Player) blow(sound audio.Mono, score scores.Score, seg scores.Segment, chance *rand.Rand) {
	from, length := float64(
		score.TempoBPM.Seconds(seg.StartBeat)+p.Late,
	), float64(
		score.TempoBPM.Seconds(seg.Beats)-p.Late,
	)
	if p.Held > 0 {
		length *= p.Held
	}
	parts, share, edge := 1, 1., streamEdge
	if seg.Bursts > 0 {
		parts, share, edge = max(1, seg.Bursts+p.Bursts), burstShare, burstEdge
	}
	rate := float64(sound.Rate)
	air := newHiss(rate)
	each := length / float64(parts)
	for k := range parts {
		gain := amplitude(p.level()+blowLevel) * max(0.1, 1+p.Uneven*chance.NormFloat64())
		begin, long := from+float64(k)*each, each*share
		for n := range int(long * rate) {
			t := float64(n) / rate
			waver := math.Pow(10, float64(p.LevelWaver)*math.Sin(2*math.Pi*1.3*t)/20)
			x := gain * waver * min(rise(t/edge), rise((long-t)/edge)) * air.next(chance)
			if at := int(begin*rate) + n; at >= 0 && at < len(sound.Samples) {
				sound.Samples[at] += x
			}
		}
	}
}
