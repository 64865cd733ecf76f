package contour

import "math"

// fullScale is how near to ±1 counts as stuck; runs of clipRun samples do.
const (
	fullScale = 0.999
	clipRun   = 3
)

// clipping counts the samples of a sound that are stuck at full scale, as it comes in.
type clipping struct{ stuck, run int }

func (c *clipping) hear(x []float64) {
	for _, v := range x {
		if math.Abs(v) < fullScale {
			c.run = 0
			continue
		}
		if c.run++; c.run == clipRun {
			c.stuck += clipRun
		} else if c.run > clipRun {
			c.stuck++
		}
	}
}
