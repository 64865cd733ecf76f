package contour

import (
	"earlychorus/core/audio"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Squeaks returns the bursts that are left of a sound between two moments when what
// repeats with its pitch is taken away: a reed's squeak is no harmonic of the note it
// breaks into, and over a bright tone it stands out in no other way. least is the
// loudness of the slope from which one counts, dB below full scale as Level's.
func (c Contour) Squeaks(m audio.Mono, from, to music.Seconds, least music.Decibels) (out []Burst) {
	rate := float64(m.Rate)
	first, last := max(0, int(float64(from)*rate)), min(len(m.Samples), int(float64(to)*rate))
	if last <= first {
		return nil
	}
	left := c.withoutPitch(m, first, last)
	block := max(1, int(clickBlock*rate))
	levels := slopeLevels(left, block, rate)
	at := music.Seconds(float64(block) / rate)
	for _, s := range bursts(levels, int(squeakRings/clickBlock)) {
		begin, end := int(s.from)+1, int(s.to)
		if music.Decibels(loudest(levels[begin:end])) >= least {
			out = append(out, Burst{from + music.Seconds(begin)*at, from + music.Seconds(end)*at})
		}
	}
	return out
}

// squeakRings is how long a squeak lasts at most, in seconds, with its ring in a hall.
const squeakRings = 0.4

// withoutPitch subtracts from every sample the one a period before it.
func (c Contour) withoutPitch(m audio.Mono, first, last int) []float64 {
	rate := float64(m.Rate)
	out := make([]float64, last-first)
	hop := int(rate * float64(Hop))
	period := 0.
	for n := 0; n < len(out); n += hop {
		k := Index(music.Seconds(float64(first+n) / rate))
		if k < len(c.Frames) && c.Frames[k].Voiced() {
			period = rate / float64(c.Frames[k].Pitch)
		}
		if period > 0 {
			dsp.LessPeriod(out[n:min(n+hop, len(out))], m.Samples, first+n, period)
		}
	}
	return out
}
