package contour

import (
	"math"

	"earlychorus/core/audio"
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
	e := emptyEnvelope(float64(m.Rate))
	e.advance(m.Samples, 0)
	return e
}

func emptyEnvelope(rate float64) Envelope { return Envelope{sums: []float64{0}, rate: rate} }

// advance measures the steps that are whole by now; x is the sound from sample first on.
// It returns how many samples of the whole sound are used up.
func (e *Envelope) advance(x []float64, first int) (used int) {
	n := len(e.sums) - 1
	for ; e.at(n+1) <= first+len(x); n++ {
		e.sums = append(e.sums, e.sums[n]+energy(x[e.at(n)-first:e.at(n+1)-first]))
	}
	return e.at(n)
}

// at is the sample that step n begins with.
func (e Envelope) at(n int) int { return int(math.Round(float64(n) * float64(EnvelopeStep) * e.rate)) }

// reserve makes room for the steps of so many samples.
func (e *Envelope) reserve(samples int) {
	steps := int(float64(samples)/e.rate/float64(EnvelopeStep)) + 2
	e.sums = append(make([]float64, 0, steps), e.sums...)
}

// bright is a sound's upper harmonics as it comes in: they are many, so that a room's
// ring does not beat against them as it does against a fundamental, and the tongue
// takes them away first.
type bright struct {
	heard    int        // samples
	x        []float64  // those of them that are not used up
	last     [2]float64 // the ones before the next
	envelope Envelope
}

func newBright(rate int) *bright {
	return &bright{envelope: emptyEnvelope(float64(rate / brightFactor(rate)))}
}

// brightFactor is how far a sound of the given rate is cut down for its upper harmonics.
func brightFactor(rate int) int { return max(1, rate/brightRate) }

// lift takes the difference twice, which lifts each octave by 12 dB, about as far as it
// falls in a wind's tone.
func (b *bright) lift(samples []float64) {
	for _, v := range samples {
		y := v - 2*b.last[1] + b.last[0]
		if b.heard < len(b.last) {
			y = 0
		}
		b.x = append(b.x, y)
		b.heard++
		b.last[0], b.last[1] = b.last[1], v
	}
	first := b.heard - len(b.x)
	used := b.envelope.advance(b.x, first)
	b.x = append(b.x[:0], b.x[used-first:]...)
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

// Reaches reports whether what comes later does not change the level over a window
// around a moment.
func (e Envelope) Reaches(at, window music.Seconds) bool {
	return int(math.Round(float64((at+window/2)/EnvelopeStep))) < len(e.sums)
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
