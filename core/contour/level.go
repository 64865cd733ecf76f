package contour

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/music"
)

// Silence is the level given to digital silence.
const Silence music.Decibels = -120

func rms(x []float64) music.Decibels { return decibels(energy(x) / float64(max(1, len(x)))) }

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

// Envelope is a finer level track, for finding where a note starts and stops
// to a few milliseconds.
type Envelope struct{ Levels []music.Decibels }

const (
	envelopeHop    = 0.002
	envelopeWindow = 0.006
)

// NewEnvelope returns the level every 2 ms, over 6 ms.
func NewEnvelope(m audio.Mono) Envelope {
	half := int(envelopeWindow / 2 * float64(m.Rate))
	out := make([]music.Decibels, int(m.Seconds()/envelopeHop))
	for n := range out {
		at := int(float64(n) * envelopeHop * float64(m.Rate))
		out[n] = rms(m.Samples[max(0, at-half):min(len(m.Samples), at+half)])
	}
	return Envelope{out}
}

// Crossing returns the moment nearest to around, within reach either way, at
// which the level passes threshold upwards (or downwards); around itself when
// it does not.
func (e Envelope) Crossing(around, reach music.Seconds, threshold music.Decibels, upwards bool) music.Seconds {
	centre := int(float64(around) / envelopeHop)
	span := int(float64(reach) / envelopeHop)
	best, found := 0, false
	for n := max(1, centre-span); n < min(len(e.Levels), centre+span); n++ {
		rises := e.Levels[n-1] < threshold && e.Levels[n] >= threshold
		falls := e.Levels[n-1] >= threshold && e.Levels[n] < threshold
		if (upwards && rises || !upwards && falls) && (!found || abs(n-centre) < abs(best-centre)) {
			best, found = n, true
		}
	}
	if !found {
		return around
	}
	return music.Seconds(float64(best) * envelopeHop)
}

func abs(n int) int { return max(n, -n) }
