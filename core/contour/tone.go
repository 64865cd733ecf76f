package contour

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Tone is the colour of a sound at one moment. Microphones and rooms differ,
// so it says something only beside the same player's same note on the same
// device.
type Tone struct {
	Clearness  music.Decibels `json:"clearness_db" doc:"harmonics to noise"`
	Brightness float64        `json:"brightness_harmonics" doc:"centre of the spectrum, counted in harmonics"`
	Tilt       float64        `json:"tilt_db_per_octave" doc:"slope of the harmonics"`
	OddEven    music.Decibels `json:"odd_even_db" doc:"odd harmonics against even ones"`
	Fullness   int            `json:"fullness" doc:"harmonics within 30 dB of the strongest"`
	Breath     music.Decibels `json:"breath_db" doc:"noise above 2 kHz against the whole tone"`
}

// ToneEar measures tone in one sound.
type ToneEar struct{ m audio.Mono }

const (
	toneRate      = 16000
	tonePass      = 0.42
	toneHarmonics = 40
	fullWithin    = 30. // dB
	breathFrom    = 2000
	hannBandwidth = 1.5 // equivalent noise bandwidth of a Hann window, in 1/length
)

// NewToneEar listens to a sound; it is looked at only where it is asked about.
func NewToneEar(m audio.Mono) ToneEar { return ToneEar{m} }

// At returns the tone of a pitch at a moment. Each harmonic is measured where
// all others cancel, and halfway between harmonics lies the noise.
func (t ToneEar) At(pitch music.Hertz, at music.Seconds) Tone {
	r, at := t.around(at, music.Seconds(windowPeriods(pitch/2)/float64(pitch/2)))
	most := min(toneHarmonics, int(tonePass*r.rate/float64(pitch)))
	if most < 1 {
		return Tone{}
	}
	r.window(pitch/2, at)
	perHarmonic := windowPeriods(pitch/2) * 2 / hannBandwidth // noise bands from one harmonic to the next
	all, power := r.powers(pitch/2, 2*most), make([]float64, most+1)
	var tone, noise, high, centre, odd, even, strongest float64
	for h := 1; h <= most; h++ {
		trace := all[2*h-1]
		power[h] = max(0, all[2*h]-trace)
		tone += power[h]
		noise += trace * perHarmonic
		if float64(h)*float64(pitch) > breathFrom {
			high += trace * perHarmonic
		}
		centre += float64(h) * power[h]
		if h%2 == 1 {
			odd += power[h]
		} else {
			even += power[h]
		}
		strongest = max(strongest, power[h])
	}
	if tone == 0 {
		return Tone{}
	}
	out := Tone{
		Clearness:  ratio(tone, noise),
		Brightness: centre / tone,
		OddEven:    ratio(odd, even),
		Breath:     ratio(high, tone),
	}
	var octaves, levels []float64
	for h := 1; h <= most; h++ {
		if power[h] > strongest*math.Pow(10, -fullWithin/10) {
			out.Fullness++
			octaves = append(octaves, math.Log2(float64(h)))
			levels = append(levels, 10*math.Log10(power[h]))
		}
	}
	out.Tilt = dsp.TheilSen(octaves, levels)
	return out
}

// around cuts the sound around a moment down to toneRate, and returns the
// moment's place in it.
func (t ToneEar) around(at, window music.Seconds) (*refiner, music.Seconds) {
	rate := float64(t.m.Rate)
	factor := max(1, t.m.Rate/toneRate)
	reach := int(float64(window)*rate/2) + toneMargin*factor
	centre := int(float64(at) * rate)
	from := max(0, centre-reach)
	x := t.m.Samples[min(from, len(t.m.Samples)):min(len(t.m.Samples), centre+reach)]
	if factor > 1 {
		x = dsp.Decimate(x, factor, tonePass)
	}
	return newRefiner(x, rate/float64(factor)), at - music.Seconds(float64(from)/rate)
}

// toneMargin is for the filter to swing in, in samples at toneRate.
const toneMargin = 64

const mostRatio = 60 // dB, either way

// ratio is a against b in dB, bounded, so that nothing against something is
// still a number.
func ratio(a, b float64) music.Decibels {
	if b <= 0 {
		return mostRatio
	}
	if a <= 0 {
		return -mostRatio
	}
	return music.Decibels(max(-mostRatio, min(mostRatio, 10*math.Log10(a/b))))
}
