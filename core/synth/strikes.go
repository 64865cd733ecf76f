package synth

import (
	"math"
	"math/rand/v2"

	"earlychorus/core/audio"
	"earlychorus/core/scores"
)

// A stroke on a pad: a short burst of noise over a dull knock.
const (
	strokeLong  = 0.12 // s
	strokeDecay = 0.018
	knockHz     = 190.
	hardest     = 5.4 // a stroke's peak against a tone's
)

// strike adds the n-th stroke, from 0.
func (p Player) strike(sound audio.Mono, score scores.Score, seg scores.Segment, n int, chance *rand.Rand) {
	if n < len(p.NoteLates) {
		p.Late += p.NoteLates[n]
	}
	rate := float64(sound.Rate)
	from := float64(score.TempoBPM.Seconds(seg.StartBeat) + p.Late)
	gain := hardest * amplitude(p.level()) * max(0.2, 1+p.Uneven*chance.NormFloat64())
	for k := range int(strokeLong * rate) {
		t := float64(k) / rate
		x := gain * math.Exp(-t/strokeDecay) * (0.5*chance.NormFloat64() + 0.5*math.Sin(2*math.Pi*knockHz*t))
		if at := int(from*rate) + k; at >= 0 && at < len(sound.Samples) {
			sound.Samples[at] += x
		}
	}
}
