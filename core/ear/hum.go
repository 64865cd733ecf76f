package ear

import (
	"math"

	"earlychorus/core/contour"
	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// hum is a steady pitch that was there before the player: the mains, a fan, a fridge.
// It goes on between the notes and under them, and is none of them.
type hum struct {
	pitch music.Cents
	level music.Decibels
}

const (
	humShare  = 0.6 // of the time before the first note in which it sounds
	humTime   = music.Seconds(1)
	humSpread = music.Decibels(4)  // its loudness hardly moves
	humBelow  = music.Decibels(15) // what is loudest in the take
	humOver   = music.Decibels(6)  // a note on its pitch is louder than it by more
	humPitch  = music.Cents(70)    // beats of a note with it draw the pitch about
)

func (h hum) isAt(pitch music.Cents) bool {
	return math.Abs(float64(pitch-h.pitch)) < float64(humPitch)
}

// humBefore returns what hums before a moment; ok is false where nothing does. Who plays
// through the count-in is loud, and hums not.
func humBefore(c contour.Contour, begin music.Seconds) (h hum, ok bool) {
	end := min(len(c.Frames), max(0, contour.Index(begin)))
	if contour.Time(end) < humTime {
		return hum{}, false
	}
	var cents, levels, all []float64
	for n, f := range c.Frames {
		if !f.Voiced() {
			continue
		}
		all = append(all, float64(f.Level))
		if n < end {
			cents, levels = append(
				cents,
				float64(music.Between(standardPitch, f.Pitch)),
			), append(
				levels,
				float64(f.Level),
			)
		}
	}
	if float64(len(cents)) < humShare*float64(end) {
		return hum{}, false
	}
	h = hum{music.Cents(dsp.Median(cents)), music.Decibels(dsp.Median(levels))}
	at := 0
	for _, v := range cents {
		if h.isAt(music.Cents(v)) {
			at++
		}
	}
	steady := dsp.Quantile(levels, 0.9)-dsp.Quantile(levels, 0.1) < float64(humSpread)
	soft := music.Decibels(dsp.Quantile(all, 0.98))-h.level > humBelow
	return h, steady && soft && float64(at) > humShare*float64(end)
}

// withoutHum is a contour in which the hum is silence; what sounds at its pitch and is
// louder stays.
func withoutHum(c contour.Contour, begin music.Seconds) contour.Contour {
	h, ok := humBefore(c, begin)
	if !ok {
		return c
	}
	frames := make([]contour.Frame, len(c.Frames))
	copy(frames, c.Frames)
	for n, f := range frames {
		if f.Voiced() && f.Level < h.level+humOver && h.isAt(music.Between(standardPitch, f.Pitch)) {
			frames[n].Pitch = 0
		}
	}
	c.Frames = frames
	return c
}
