// Package meter reads the trace of an air meter: a ball in a tube that rises
// with the flow. No meter need be there: Blower is the stand-in that ships.
package meter

import (
	"math"
	"slices"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Trace is a meter's reading: how high the ball stands, 0 on the floor to 1 at
// the top of the tube, every Step seconds from the score's first click.
type Trace struct {
	Step   music.Seconds `json:"step_s"`
	Height []float64     `json:"height"`
}

// Blow is one blow into the meter, against one segment of air in the score.
type Blow struct {
	Heard     bool          `json:"heard"`
	Onset     music.Seconds `json:"onset_s"`
	Delay     music.Seconds `json:"delay_s" doc:"from the start of the breath to the ball's top"`
	Overshoot float64       `json:"overshoot" doc:"share by which the ball jumped above where it then stood"`
	Unsteady  float64       `json:"unsteady" doc:"standard deviation over mean of the height, once up"`
	Length    music.Seconds `json:"length_s"`
}

const (
	moving  = 0.05 // of the tube: the ball has left the floor
	atTop   = 0.9  // of the height it then stands at
	early   = music.Seconds(0.5)
	settled = music.Seconds(0.4) // after the top, before steadiness is judged
)

// Read measures one blow for each segment of air in the score.
func Read(t Trace, s scores.Score) []Blow {
	out := []Blow{}
	for _, seg := range s.Segments {
		if seg.Phase != scores.Out {
			continue
		}
		begin := s.TempoBPM.Seconds(seg.StartBeat)
		out = append(out, t.blow(begin-early, begin+s.TempoBPM.Seconds(seg.Beats)+early))
	}
	return out
}

func (t Trace) blow(from, to music.Seconds) Blow {
	first, last := t.index(from), t.index(to)
	up := slices.IndexFunc(t.Height[first:last], func(h float64) bool { return h > moving })
	if up < 0 {
		return Blow{}
	}
	up += first
	down := up
	for n := up; n < last; n++ {
		if t.Height[n] > moving {
			down = n
		}
	}
	stands := median(t.Height[up : down+1])
	top := up
	for top < down && t.Height[top] < atTop*stands {
		top++
	}
	b := Blow{
		Heard:  true,
		Onset:  t.time(up),
		Delay:  t.time(top) - t.time(up),
		Length: t.time(down) - t.time(up),
	}
	b.Overshoot = max(0, slices.Max(t.Height[up:down+1])/stands-1)
	if steady := t.Height[min(down, top+int(settled/t.Step)) : down+1-min(down-top, int(settled/t.Step))/2]; len(
		steady,
	) > 1 {
		b.Unsteady = spread(steady)
	}
	return b
}

func (t Trace) index(at music.Seconds) int {
	return min(len(t.Height), max(0, int(math.Round(float64(at/t.Step)))))
}

func (t Trace) time(n int) music.Seconds { return music.Seconds(n) * t.Step }

func median(x []float64) float64 {
	sorted := slices.Sorted(slices.Values(x))
	return sorted[len(sorted)/2]
}

// spread is the standard deviation of x over its mean.
func spread(x []float64) float64 {
	var mean, squares float64
	for _, v := range x {
		mean += v / float64(len(x))
	}
	for _, v := range x {
		squares += (v - mean) * (v - mean) / float64(len(x))
	}
	if mean == 0 {
		return 0
	}
	return math.Sqrt(squares) / mean
}
