package contour

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/music"
)

// Silence is the level given to digital silence.
const Silence music.Decibels = -120

// levelTrack is the RMS over two hops around each frame, from the energies
// of the halves of the windows, which neighbours share.
func levelTrack(m audio.Mono) []music.Decibels {
	frames := int(m.Seconds() / float64(Hop))
	at := func(n int) int { return min(len(m.Samples), int(math.Round(float64(n)*float64(Hop)*float64(m.Rate)))) }
	out := make([]music.Decibels, frames)
	before, count := 0., 0
	for n := range out {
		half := m.Samples[at(n):at(n+1)]
		after := energy(half)
		out[n] = decibels((before + after) / float64(max(1, count+len(half))))
		before, count = after, len(half)
	}
	return out
}

func energy(x []float64) (sum float64) {
	var a, b float64
	for ; len(x) >= 2; x = x[2:] {
		a += x[0] * x[0]
		b += x[1] * x[1]
	}
	if len(x) == 1 {
		a += x[0] * x[0]
	}
	return a + b
}

func decibels(power float64) music.Decibels {
	if power <= 0 {
		return Silence
	}
	return max(Silence, music.Decibels(10*math.Log10(power)))
}
