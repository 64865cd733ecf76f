// Package contour hears: it turns sound into tracks of pitch, confidence,
// level and clearness, one frame every 10 ms.
package contour

import (
	"errors"
	"math"

	"earlychorus/core/audio"
	"earlychorus/core/music"
)

// Hop is the time between frames.
const Hop music.Seconds = 0.01

// Version names the estimator; analyses keep the version they were made with.
const Version = 3

// Frame is what was heard around one moment.
type Frame struct {
	Pitch      music.Hertz    // 0 where no pitch was heard
	Confidence float64        // how periodic the sound is at Pitch, 0 to 1
	Level      music.Decibels // RMS over 20 ms, dB below full scale
}

// HarmonicsToNoise returns the ratio that a periodicity (0 to 1) stands for:
// 10·log10(r / (1−r)), kept within ±40 dB. Source: P. Boersma, IFA
// Proceedings 17 (1993), pp. 97–110.
func HarmonicsToNoise(periodicity float64) music.Decibels {
	r := max(1e-4, min(1-1e-4, periodicity))
	return music.Decibels(10 * math.Log10(r/(1-r)))
}

// Voiced reports whether a pitch was heard.
func (f Frame) Voiced() bool { return f.Pitch > 0 }

// Contour is the tracks of one take. Frame n is centred on n·Hop.
type Contour struct {
	Frames []Frame
	// Bursts are short sounds that stand out and are gone: clicks, and squeaks
	// that last a little longer.
	Bursts []Burst
}

// Burst is a short sound that stands out of what is around it.
type Burst struct{ From, To music.Seconds }

// LongestClick is the longest that a metronome's or a key's click lasts;
// longer bursts are squeaks.
const LongestClick music.Seconds = clickLongest

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

// ErrRate reports a sampling rate the ear does not listen at.
var ErrRate = errors.New("contour: the sampling rate must lie between 16 and 96 kHz")

func rateHeard(rate int) bool { return rate >= audio.LowestRate && rate <= audio.HighestRate }

// Track listens to a whole sound for its pitch alone, as Open, Hear, End and Take.Track do
// to one that comes in. Errors: ErrRate and asker's.
func (e Ear) Track(asker audio.Asker, sound audio.Mono) (Contour, error) {
	t, err := e.open(sound.Rate, true)
	if err != nil {
		return Contour{}, err
	}
	t.Hear(sound.Samples)
	t.End()
	return t.Track(asker)
}

// shortestSound is how many frames in a row must have a pitch to be believed.
const shortestSound = 4

// dropFlickers takes back pitches that last too short to be played.
func dropFlickers(path []int) []int {
	for from := 0; from < len(path); {
		to := from
		for to < len(path) && path[to] >= 0 {
			to++
		}
		if to-from < shortestSound {
			for n := from; n < to; n++ {
				path[n] = -1
			}
		}
		from = max(to, from+1)
	}
	return path
}
