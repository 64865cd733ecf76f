package contour

import (
	"math"

	"earlychorus/core/music"
)

// Single returns how loud one frequency alone is over a window around a moment, dB
// below full scale, through a Hann window: what lies more than 2/window off is hardly
// heard.
func (t ToneEar) Single(of music.Hertz, at, window music.Seconds) music.Decibels {
	rate := float64(t.m.Rate)
	size := int(float64(window) * rate)
	from := int(float64(at)*rate) - size/2
	// Both the frequency and the window turn by a fixed angle a sample.
	turn, slow := 2*math.Pi*float64(of)/rate, 2*math.Pi/float64(size)
	step, sway := complex(math.Cos(turn), -math.Sin(turn)), complex(math.Cos(slow), math.Sin(slow))
	phase, hann := complex(1, 0), complex(1, 0)
	var sum complex128
	for n := max(0, -from); n < size && from+n < len(t.m.Samples); n++ {
		sum += complex(t.m.Samples[from+n]*(1-real(hann))/2, 0) * phase
		phase *= step
		hann *= sway
	}
	// A sine's RMS is its amplitude by √2; the window's mean is a half.
	amplitude := 4 / float64(size) * math.Hypot(real(sum), imag(sum))
	return decibels(amplitude * amplitude / 2)
}
