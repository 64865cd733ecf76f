// Package contour hears: it turns sound into tracks of pitch, confidence,
// level and clearness, one frame every 10 ms.
package contour

import (
	"context"
	"errors"
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// Hop is the time between frames.
const Hop music.Seconds = 0.01

// Version names the estimator; analyses keep the version they were made with.
const Version = 1

// Frame is what was heard around one moment.
type Frame struct {
	Pitch      music.Hertz    // 0 where no pitch was heard
	Confidence float64        // how periodic the sound is at Pitch, 0 to 1
	Level      music.Decibels // RMS over 20 ms, dB below full scale
}

// Voiced reports whether a pitch was heard.
func (f Frame) Voiced() bool { return f.Pitch > 0 }

// Contour is the tracks of one take. Frame n is centred on n·Hop.
type Contour struct {
	Frames   []Frame
	Envelope Envelope
}

// Time returns the moment frame n is centred on.
func Time(n int) music.Seconds { return music.Seconds(n) * Hop }

// Index returns the frame nearest to t; it may lie outside the contour.
func Index(t music.Seconds) int { return int(math.Round(float64(t / Hop))) }

// Ear is how the tracker listens: between which pitches.
type Ear struct{ Lowest, Highest music.Hertz }

// OpenEar hears every pitch from the tuba's bottom to the piccolo's middle. It
// is what remains when the instrument is not known: low windows must be long,
// so quick changes of high notes blur, and a sub-octave is easier to mistake.
var OpenEar = Ear{Lowest: 30, Highest: 2100}

// reach is how far beyond the beginner range, in semitones, a known
// instrument's notes are still listened for: cracks go up, undertones down.
const (
	reachBelow = 7
	reachAbove = 13
	highestEar = music.Hertz(2600)
)

// EarFor returns the ear for one instrument.
func EarFor(i instrument.Instrument) Ear {
	low := (i.Beginner.From - reachBelow).Frequency(music.StandardA4)
	high := (i.Beginner.To + reachAbove).Frequency(music.StandardA4)
	return Ear{max(low, OpenEar.Lowest), min(high, highestEar)}
}

// ErrRate reports a sampling rate the ear does not listen at.
var ErrRate = errors.New("contour: the sampling rate must lie between 16 and 96 kHz")

// Track returns one frame each Hop from the first sample to the last. It is
// empty for sound shorter than one frame. ctx stops it early with its error.
//
// Candidates come from the normalised square difference function, weighed as
// in probabilistic YIN (M. Mauch and S. Dixon, ICASSP 2014), with a window
// that follows the note; one best path over the whole take (Viterbi) chooses
// among them; the chosen period is refined at its highest audible multiple.
func (e Ear) Track(ctx context.Context, sound audio.Mono) (Contour, error) {
	if sound.Rate < audio.LowestRate || sound.Rate > audio.HighestRate {
		return Contour{}, ErrRate
	}
	levels := levelTrack(sound)
	gate := gateLevel(levels)
	l := e.newListener(sound)
	lattice := make([][]candidate, len(levels)) // frames below the gate stay empty: rests cost nothing
	for n := range lattice {
		if n%100 == 0 && ctx.Err() != nil {
			return Contour{}, ctx.Err()
		}
		if levels[n] >= gate {
			lattice[n] = l.candidates(n)
		}
	}
	frames := make([]Frame, len(levels))
	for n, chosen := range bestPath(lattice) {
		frames[n].Level = levels[n]
		if chosen != nil {
			frames[n].Pitch = chosen.pitch
			frames[n].Confidence = max(0, min(1, chosen.clarity))
		}
	}
	return Contour{Frames: frames, Envelope: newEnvelope(sound)}, nil
}
