package contour

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Spectrogram is a sound's strength by time and pitch, to be looked at: a byte a
// point, 0 for what lies 80 dB or more below full scale, 255 for full scale.
type Spectrogram struct {
	Hop    music.Seconds `json:"hop_s"`
	Bin    music.Hertz   `json:"bin_hz"`
	Bins   int           `json:"bins" doc:"of one moment, from 0 Hz up"`
	Points []byte        `json:"points" doc:"moment after moment"`
}

const (
	spectrogramWindow               = 0.085 // seconds at least; a power of two of samples is taken
	spectrogramHop    music.Seconds = 0.025
	spectrogramTop    music.Hertz   = 5000
	spectrogramFloor                = 80. // dB
)

// SpectrogramOf returns a sound's spectrogram up to 5 kHz, with a Hann window.
func SpectrogramOf(m audio.Mono) Spectrogram {
	size := 1
	for float64(size) < spectrogramWindow*float64(m.Rate) {
		size *= 2
	}
	f, window, gain := dsp.NewFFT(size), make([]float64, size), 0.
	for n := range window {
		window[n] = 0.5 - 0.5*math.Cos(2*math.Pi*float64(n)/float64(size))
		gain += window[n] / 2
	}
	out := Spectrogram{Hop: spectrogramHop, Bin: music.Hertz(float64(m.Rate) / float64(size))}
	out.Bins = min(size/2, int(spectrogramTop/out.Bin)+1)
	re, im := make([]float64, size), make([]float64, size)
	for at := 0.; at < m.Seconds(); at += float64(spectrogramHop) {
		from := int(at*float64(m.Rate)) - size/2
		for n := range re {
			re[n], im[n] = 0, 0
			if k := from + n; k >= 0 && k < len(m.Samples) {
				re[n] = m.Samples[k] * window[n]
			}
		}
		f.Transform(re, im)
		for k := range out.Bins {
			p := f.Place(k)
			db := 20 * math.Log10(math.Hypot(re[p], im[p])/gain+1e-9)
			out.Points = append(out.Points, byte(max(0, min(255, 255*(1+db/spectrogramFloor)))))
		}
	}
	return out
}
