package ear

import (
	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Fault is something wrong with a recording, never with the playing.
type Fault string

const (
	NoSound  Fault = "no-sound"  // the microphone gave nothing
	TooQuiet Fault = "too-quiet" // the player is too far from it
	Noisy    Fault = "noisy"     // the room drowns the player
	Clipped  Fault = "clipped"   // the microphone is overloaded
	CutShort Fault = "cut-short" // the recording ends before the score does
	// GainRiding: the device turns the volume up in rests and down in notes.
	GainRiding Fault = "gain-riding"
)

// Recording says how far the sound itself can be trusted.
type Recording struct {
	SNR          music.Decibels `json:"snr_db" doc:"loudness of the notes above the room"`
	ClippedRatio float64        `json:"clipped_ratio" doc:"share of samples stuck at full scale"`
	NoiseFloor   music.Decibels `json:"noise_floor_db"`
	Ring         music.Seconds  `json:"ring_s" doc:"time by which the room's ring falls by 60 dB; 0 where it could not be heard"`
	Faults       []Fault        `json:"faults" nullable:"false"`
}

// Below these a recording is at fault (common practice, no published source).
const (
	quietestRecording music.Decibels = -65
	quietestNote      music.Decibels = -52
	leastSNR          music.Decibels = 12
	mostClipped                      = 0.002
	shortestTail      music.Seconds  = 1
	// Of the frames with a pitch, some are the hum of the room: the louder ones tell
	// how loud the playing is.
	playedAbove = 0.75
)

func listenToRecording(clipped float64, c contour.Contour) Recording {
	var all, voiced, quiet []float64
	for _, f := range c.Frames {
		level := float64(f.Level)
		all = append(all, level)
		if f.Voiced() {
			voiced = append(voiced, level)
		} else {
			quiet = append(quiet, level)
		}
	}
	r := Recording{ClippedRatio: clipped, NoiseFloor: contour.Silence, Faults: []Fault{}}
	if len(quiet) > 0 {
		r.NoiseFloor = music.Decibels(dsp.Quantile(quiet, 0.2))
	}
	if len(all) == 0 || music.Decibels(dsp.Quantile(all, 0.98)) < quietestRecording {
		r.Faults = append(r.Faults, NoSound)
		return r
	}
	if r.ClippedRatio > mostClipped {
		r.Faults = append(r.Faults, Clipped)
	}
	if len(voiced) == 0 {
		return r
	}
	loud := music.Decibels(dsp.Quantile(voiced, playedAbove))
	r.SNR = loud - r.NoiseFloor
	if loud < quietestNote {
		r.Faults = append(r.Faults, TooQuiet)
	}
	if len(quiet) > 0 && r.SNR < leastSNR {
		r.Faults = append(r.Faults, Noisy)
	}
	if ridesGain(c) {
		r.Faults = append(r.Faults, GainRiding)
	}
	return r
}

// A device that rides the gain lets the room rise in every rest.
const (
	restForGain    = 100 // frames
	afterNote      = 20  // frames for the note and its echo to go
	gainRises      = 3.  // dB a second
	gainRisesAtAll = 4.  // dB
	gainParts      = 4   // of a rest, each of which is louder than the one before
)

func ridesGain(c contour.Contour) bool {
	var slopes []float64
	from := -1 // of the rest, once a note was heard
	for n, f := range c.Frames {
		if !f.Voiced() {
			continue
		}
		if from >= 0 && n-from > restForGain+afterNote {
			slope := gainSlope(c.Frames[from+afterNote : n-afterNote])
			slopes = append(slopes, slope)
		}
		from = n + 1
	}
	return len(slopes) > 0 && dsp.Median(slopes) > gainRises
}

// gainSlope is by how many dB a second the quiet of a rest rises, where it rises all the
// way and by enough: somebody talking is loud in one part of it.
func gainSlope(rest []contour.Frame) float64 {
	var quiets []float64
	for part := range gainParts {
		var levels []float64
		for _, f := range rest[part*len(rest)/gainParts : (part+1)*len(rest)/gainParts] {
			levels = append(levels, float64(f.Level))
		}
		quiets = append(quiets, dsp.Quantile(levels, 0.2))
	}
	for k := 1; k < gainParts; k++ {
		if quiets[k]-quiets[k-1] < gainRisesAtAll/(2*gainParts) {
			return 0
		}
	}
	rises := quiets[gainParts-1] - quiets[0]
	if rises < gainRisesAtAll*(gainParts-1)/gainParts {
		return 0
	}
	return rises / (float64(contour.Hop) * float64(len(rest)) * (gainParts - 1) / gainParts)
}

// hearRing takes the room's ring from how the sound died away behind the notes: the
// quickest says what the room allows. A player's own taper is steeper towards its end.
func (l *listening) hearRing() {
	for _, n := range l.Notes {
		if rt := l.ringAfter(n); rt > 0 && (l.Recording.Ring == 0 || rt < l.Recording.Ring) {
			l.Recording.Ring = rt
		}
	}
}

// The stretch of a fall that the ring is read off, below the note, as in ISO 3382-2's T15
// but lower; the times by which it makes 60 dB; and what counts as faded for good.
const (
	ringFrom   = music.Decibels(-20)
	ringTo     = music.Decibels(-35)
	ringTimes  = 4
	ringClear  = music.Decibels(3) // of the noise
	ringWithin = music.Seconds(1.2)
	ringFaded  = music.Seconds(0.1)
)

// ringAfter is the time by which the sound behind a note would fall by 60 dB; 0 where the
// next note or the room's noise comes first.
func (l *listening) ringAfter(n Note) music.Seconds {
	if !n.Played || n.Release == 0 || l.Recording.NoiseFloor > n.LevelTo+ringTo-ringClear {
		return 0
	}
	begin, end := n.Release, n.Release
	for at := n.Release; at < n.Release+ringWithin; at += contour.EnvelopeStep {
		switch level := l.fine.Level(at, ringWindow); {
		case level > n.LevelTo+ringFrom:
			begin, end = at, at
		case level > n.LevelTo+ringTo:
			end = at
		case at > end+ringFaded:
			return ringTimes * (end - begin)
		}
	}
	return 0
}

func (r *Recording) addFaultOfLength(got, want music.Seconds) {
	if got < want-shortestTail {
		r.Faults = append(r.Faults, CutShort)
	}
}
