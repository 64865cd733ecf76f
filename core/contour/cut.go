package contour

import "earlychorus/core/dsp"

// cut takes a sound down to two rates as it comes in: the listener's own, and that of the
// upper harmonics. Where both begin by halving it, that is done once.
type cut struct {
	half        *dsp.Stream // nil where each begins in its own way
	base, upper *dsp.Stream
	out         [3][]float64 // of each, the last time
}

func newCut(base, upper int) (c cut) {
	if dsp.Halves(base) && dsp.Halves(upper) {
		c.half, base, upper = dsp.NewHalving(), base/2, upper/2
	}
	c.base, c.upper = dsp.NewStream(base, passedShare, 0.5), dsp.NewStream(upper, tonePass, 1-tonePass)
	return c
}

// push returns what a block completes at either rate, until the next block comes.
func (c *cut) push(block []float64) (base, upper []float64) {
	if c.half != nil {
		c.out[2] = c.half.Append(c.out[2][:0], block)
		block = c.out[2]
	}
	c.out[0], c.out[1] = c.base.Append(c.out[0][:0], block), c.upper.Append(c.out[1][:0], block)
	return c.out[0], c.out[1]
}

// end returns what the filters still hold.
func (c *cut) end() (base, upper []float64) {
	if c.half != nil {
		rest := c.half.End()
		base, upper = c.base.Push(rest), c.upper.Push(rest)
	}
	return append(base, c.base.End()...), append(upper, c.upper.End()...)
}
