package contour

import "earlychorus/core/dsp"

// cut takes a sound down to the listener's rate as it comes in, and to that of the upper
// harmonics where they are asked for. Where both begin by halving it, that is done once.
type cut struct {
	factor      int         // of base, down from the sound
	half        *dsp.Stream // nil where each begins in its own way
	base, upper *dsp.Stream // no upper where it is not asked for
	out         [3][]float64
}

func newCut(factor int) cut {
	return cut{factor: factor, base: dsp.NewStream(factor, passedShare, 0.5)}
}

// addUpper is to be called before the first sample.
func (c *cut) addUpper(factor int) {
	base := c.factor
	if dsp.Halves(base) && dsp.Halves(factor) {
		c.half, base, factor = dsp.NewHalving(), base/2, factor/2
	}
	c.base, c.upper = dsp.NewStream(base, passedShare, 0.5), dsp.NewStream(factor, tonePass, 1-tonePass)
}

// push returns what a block completes at either rate, until the next block comes.
func (c *cut) push(block []float64) (base, upper []float64) {
	if c.half != nil {
		c.out[2] = c.half.Append(c.out[2][:0], block)
		block = c.out[2]
	}
	return c.pass(block)
}

func (c *cut) pass(block []float64) (base, upper []float64) {
	c.out[0] = c.base.Append(c.out[0][:0], block)
	if c.upper != nil {
		c.out[1] = c.upper.Append(c.out[1][:0], block)
	}
	return c.out[0], c.out[1]
}

// end returns what the filters still hold.
func (c *cut) end() (base, upper []float64) {
	if c.half != nil {
		base, upper = c.pass(c.half.End())
	}
	base = append(base, c.base.End()...)
	if c.upper != nil {
		upper = append(upper, c.upper.End()...)
	}
	return base, upper
}
