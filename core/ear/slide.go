package ear

import (
	"math"

	"earlychorus/core/contour"
	"earlychorus/core/music"
)

// Slide is how a pitch slid from one note to another.
type Slide struct {
	DeadSpot music.Seconds `json:"dead_spot_s" doc:"longest silence on the way"`
	Travel   float64       `json:"travel" doc:"share of the way that was travelled; above 1 is beyond"`
	Back     music.Cents   `json:"back_cents" doc:"farthest turn back on the way"`
	Plateaus int           `json:"plateaus" doc:"notes on which it rested"`
}

// A rest on the way is this long and this level.
const (
	restFrames = 12
	restSpan   = music.Cents(35)
)

// slide measures a sliding pitch against the way from its target to where it
// should go.
func (l *listening) slide(g group) *Slide {
	s := &Slide{}
	way := music.Between(g.target.Target.Frequency(l.a4()), g.target.GlideTo.Frequency(l.a4()))
	direction := math.Copysign(1, float64(way))
	first, last := g.on[0].from, g.on[len(g.on)-1].to
	var track []float64 // cents on the way, counted in its direction
	silent := 0
	for n := first; n < last; n++ {
		f := l.contour.Frames[n]
		if !f.Voiced() {
			silent++
			s.DeadSpot = max(s.DeadSpot, music.Seconds(silent)*contour.Hop)
			continue
		}
		silent = 0
		track = append(track, direction*float64(music.Between(standardPitch, f.Pitch)-g.pitch))
	}
	if len(track) == 0 {
		return s
	}
	low, high, top := track[0], track[0], track[0]
	for _, v := range track {
		low, high, top = math.Min(low, v), math.Max(high, v), math.Max(top, v)
		s.Back = max(s.Back, music.Cents(top-v))
	}
	s.Travel = (high - low) / math.Abs(float64(way))
	s.Plateaus = restsOf(track)
	return s
}

// restsOf counts the stretches on which a track stays level.
func restsOf(track []float64) (count int) {
	from := 0
	resting := false
	for n := range track {
		for math.Abs(track[n]-track[from]) > float64(restSpan) {
			from++
			resting = false
		}
		if n-from+1 >= restFrames && !resting {
			count++
			resting = true
		}
	}
	return count
}
