package contour

import (
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Envelope is a finer level track, for finding where a note starts and stops
// to a few milliseconds.
type Envelope struct {
	sums []float64 // energy of everything before each step
	rate float64   // of the sound
}

// EnvelopeStep is the time between an envelope's points.
const EnvelopeStep music.Seconds = 0.001

// NewEnvelope prepares the levels of a sound.
func NewEnvelope(m audio.Mono) Envelope {
	count := int(m.Seconds() / float64(EnvelopeStep))
	e := Envelope{sums: make([]float64, count+1), rate: float64(m.Rate)}
	at := func(n int) int {
		return min(len(m.Samples), int(math.Round(float64(n)*float64(EnvelopeStep)*e.rate)))
	}
	for n := range count {
		e.sums[n+1] = e.sums[n] + energy(m.Samples[at(n):at(n+1)])
	}
	return e
}

// NewBrightEnvelope prepares the levels of a sound's upper harmonics: they are many, so
// that a room's ring does not beat against them as it does against a fundamental, and the
// tongue takes them away first.
func NewBrightEnvelope(m audio.Mono) Envelope {
	if factor := m.Rate / brightRate; factor > 1 {
		m = audio.Mono{Samples: dsp.Decimate(m.Samples, factor, tonePass), Rate: m.Rate / factor}
	}
	// Twice the difference lifts each octave by 12 dB, about as far as it falls in a wind's tone.
	bright := make([]float64, len(m.Samples))
	for n := 2; n < len(bright); n++ {
		bright[n] = m.Samples[n] - 2*m.Samples[n-1] + m.Samples[n-2]
	}
	return NewEnvelope(audio.Mono{Samples: bright, Rate: m.Rate})
}

// brightRate is samples a second: above half of it lies more room than tone.
const brightRate = 12_000

// Level returns the RMS over a window around a moment, in dB below full scale.
func (e Envelope) Level(at, window music.Seconds) music.Decibels {
	from := max(0, int(math.Round(float64((at-window/2)/EnvelopeStep))))
	to := min(len(e.sums)-1, int(math.Round(float64((at+window/2)/EnvelopeStep))))
	if to <= from {
		return Silence
	}
	return decibels((e.sums[to] - e.sums[from]) / (float64(to-from) * float64(EnvelopeStep) * e.rate))
}

// Crossing returns the moment nearest to around, within reach either way, at
// which the level over window passes threshold upwards (or downwards); around
// itself when it does not.
func (e Envelope) Crossing(around, reach, window music.Seconds, threshold music.Decibels, upwards bool) music.Seconds {
	best, found := around, false
	last := e.Level(around-reach, window)
	for at := around - reach + EnvelopeStep; at <= around+reach; at += EnvelopeStep {
		level := e.Level(at, window)
		rises, falls := last < threshold && level >= threshold, last >= threshold && level < threshold
		if (upwards && rises || !upwards && falls) && (!found || abs(at-around) < abs(best-around)) {
			best, found = at, true
		}
		last = level
	}
	return best
}

func abs(s music.Seconds) music.Seconds { return max(s, -s) }
