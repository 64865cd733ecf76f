package contour

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Loudness is the momentary loudness of a sound: K-weighted, over 400 ms, every
// 100 ms, in LUFS. Source: ITU-R BS.1770-4, annex 1; the filters are those of
// its tables 1 and 2, worked out for any rate from the analogue filters behind
// them (B. De Man, "Evaluation of Implementations of the EBU R128 Loudness
// Measurement", AES 145, 2018, for their parameters).
type Loudness struct {
	Momentary   []music.Decibels
	rate        float64
	shelf, pass Biquad
	at          int // samples heard
	block       float64
	blocks      []float64 // power of each whole hop
}

const (
	loudnessWindow = 0.4
	loudnessHop    = 0.1
	loudnessOffset = -0.691 // dB: a 997 Hz tone at full scale is -3.01 LUFS
)

// NewLoudness measures a sound.
func NewLoudness(m audio.Mono) Loudness {
	l := emptyLoudness(float64(m.Rate))
	l.advance(m.Samples)
	return l
}

func emptyLoudness(rate float64) Loudness {
	return Loudness{rate: rate, shelf: Shelf(rate), pass: HighPass(rate)}
}

// advance measures the windows that are whole by now; x is the sound from its beginning.
func (l *Loudness) advance(x []float64) {
	span := int(math.Round(loudnessWindow / loudnessHop))
	end := func(b int) int { return int(float64(b+1) * loudnessHop * l.rate) }
	for from := end(len(l.blocks) - 1); l.at < len(x); {
		to := end(len(l.blocks))
		if until := min(to, len(x)); l.at < until {
			l.block = through(&l.shelf, &l.pass, x[l.at:until], l.block)
			l.at = until
		}
		if l.at < to {
			return
		}
		l.shelf.rest()
		l.pass.rest()
		l.blocks = append(l.blocks, l.block/float64(max(1, to-from)))
		l.block, from = 0, to
		if first := len(l.blocks) - span; first >= 0 {
			var sum float64
			for _, p := range l.blocks[first:] {
				sum += p / float64(span)
			}
			l.Momentary = append(l.Momentary, max(Silence, loudnessOffset+decibels(sum)))
		}
	}
}

// Between returns the median momentary loudness of a stretch; Silence for one
// too short to hold a window.
func (l Loudness) Between(from, to music.Seconds) music.Decibels {
	first, last := int(math.Ceil(float64(from)/loudnessHop)), int((float64(to)-loudnessWindow)/loudnessHop)
	if first < 0 || last < first || last >= len(l.Momentary) {
		return Silence
	}
	x := make([]float64, 0, last-first+1)
	for _, v := range l.Momentary[first : last+1] {
		x = append(x, float64(v))
	}
	return music.Decibels(dsp.Median(x))
}

// Biquad is a filter of second order: y = b0·x + b1·x₁ + b2·x₂ − a1·y₁ − a2·y₂.
type Biquad struct {
	B0, B1, B2, A1, A2 float64
	last               [4]float64 // x₁, x₂, y₁, y₂
}

// rest forgets what rings on below everything.
func (b *Biquad) rest() {
	for _, v := range b.last {
		if math.Abs(v) >= dsp.RestsBelow {
			return
		}
	}
	b.last = [4]float64{}
}

// through returns energy and that of what comes out behind both filters. What they hold
// stays in the processor meanwhile, and only one product and one difference of each wait
// for what came out before: every sample of a take passes here.
func through(f, g *Biquad, x []float64, energy float64) float64 {
	b0, b1, b2, a1, a2 := f.B0, f.B1, f.B2, f.A1, f.A2
	d0, d1, d2, c1, c2 := g.B0, g.B1, g.B2, g.A1, g.A2
	x1, x2, y1, y2, z1, z2 := f.last[0], f.last[1], f.last[2], f.last[3], g.last[2], g.last[3]
	for _, x0 := range x {
		y0 := (b0*x0 + b1*x1 + b2*x2 - a2*y2) - a1*y1
		z0 := (d0*y0 + d1*y1 + d2*y2 - c2*z2) - c1*z1
		x1, x2, y1, y2, z1, z2 = x0, x1, y0, y1, z0, z1
		energy += z0 * z0
	}
	f.last, g.last = [4]float64{x1, x2, y1, y2}, [4]float64{y1, y2, z1, z2}
	return energy
}

// Shelf is the K-weighting's first filter: the head in the sound.
func Shelf(rate float64) Biquad {
	const corner, gain, q = 1681.974450955533, 3.999843853973347, 0.7071752369554196
	k := math.Tan(math.Pi * corner / rate)
	vh := math.Pow(10, gain/20)
	vb := math.Pow(vh, 0.4996667741545416)
	a0 := 1 + k/q + k*k
	return Biquad{
		B0: (vh + vb*k/q + k*k) / a0,
		B1: 2 * (k*k - vh) / a0,
		B2: (vh - vb*k/q + k*k) / a0,
		A1: 2 * (k*k - 1) / a0,
		A2: (1 - k/q + k*k) / a0,
	}
}

// HighPass is its second: the ear's deafness to the lowest sounds.
func HighPass(rate float64) Biquad {
	const corner, q = 38.13547087602444, 0.5003270373238773
	k := math.Tan(math.Pi * corner / rate)
	a0 := 1 + k/q + k*k
	return Biquad{
		B0: 1,
		B1: -2,
		B2: 1,
		A1: 2 * (k*k - 1) / a0,
		A2: (1 - k/q + k*k) / a0,
	}
}
