package dsp

import (
	"math"
	"slices"
)

// Stream keeps every factor-th sample of a sound that comes in blocks: what
// Decimate does to a whole one, a filter's half later. What comes out does not
// depend on where the blocks were cut.
type Stream struct {
	factor int
	filter []phase
	reach  int         // of the filter, in samples to one side
	lanes  [][]float64 // what is not yet used up: every factor-th sample, from the first, the second... on
	held   int         // how many that are, the filter's reach before the next sample and more
	first  *Stream     // an earlier step, for factors of 4 and more
	passed []float64   // by it, the last time
}

// phase is what a filter does with every factor-th sample: the taps that are not nothing,
// and which sample of the phase the first of them is for.
type phase struct {
	taps  []float64
	first int
}

// streamBlock is as much of a long block as is taken at once, so that the steps of a
// stream pass it on while it is near the processor.
const streamBlock = 4096

// NewStream prepares a stream; factor and pass are those of Decimate, stop (of the new
// rate too) is where the low pass ends. At 0.5 nothing folds back; at 1 - pass what does
// comes to lie above pass, for half the work or less.
func NewStream(factor int, pass, stop float64) *Stream {
	if !Halves(factor) {
		return newStep(factor, pass/float64(factor), stop/float64(factor))
	}
	s := NewStream(factor/2, pass, stop)
	last := s
	for last.first != nil {
		last = last.first
	}
	last.first = NewHalving()
	return s
}

// Halves reports whether a stream of this factor begins with NewHalving's, with a stream
// of half the factor behind it.
func Halves(factor int) bool { return factor%2 == 0 && factor > 2 }

// NewHalving keeps every second sample, and clean what lies below an eighth of the rate it
// comes at: a later step can keep no more. Its low pass is a half-band filter, every other
// tap of which is nothing.
func NewHalving() *Stream { return newStep(2, 0.125, 0.375) }

func newStep(factor int, pass, stop float64) *Stream {
	taps := []float64{1}
	if factor > 1 {
		taps = lowpass((pass+stop)/2, tapsFor(stop-pass))
	}
	s := &Stream{factor: factor, reach: len(taps) / 2, lanes: make([][]float64, factor)}
	for from := range factor {
		s.filter = append(s.filter, phaseOf(taps, from, factor))
	}
	s.hold(make([]float64, s.reach))
	return s
}

// phaseOf takes every factor-th tap from one on, without those at either end that are
// nothing.
func phaseOf(taps []float64, from, factor int) (p phase) {
	for n := from; n < len(taps); n += factor {
		p.taps = append(p.taps, taps[n])
	}
	for len(p.taps) > 0 && isNothing(p.taps[len(p.taps)-1]) {
		p.taps = p.taps[:len(p.taps)-1]
	}
	for len(p.taps) > 0 && isNothing(p.taps[0]) {
		p.taps, p.first = p.taps[1:], p.first+1
	}
	return p
}

func isNothing(tap float64) bool { return math.Abs(tap) < 1e-12 }

// Push takes a block and returns the samples that are now complete.
func (s *Stream) Push(block []float64) []float64 {
	return s.Append(make([]float64, 0, len(block)/s.total()+1), block)
}

// Append is Push into memory at hand: it appends to out.
func (s *Stream) Append(out, block []float64) []float64 {
	for len(block) > streamBlock {
		out = s.push(block[:streamBlock], out)
		block = block[streamBlock:]
	}
	return s.push(block, out)
}

// End returns what the filters still hold: there is silence behind the last block.
func (s *Stream) End() []float64 {
	var out []float64
	if s.first != nil {
		out = s.step(s.first.End(), out)
	}
	return s.step(make([]float64, s.reach), out)
}

// total is the factor of all steps.
func (s *Stream) total() int {
	if s.first == nil {
		return s.factor
	}
	return s.factor * s.first.total()
}

// push appends to out what a block completes.
func (s *Stream) push(block, out []float64) []float64 {
	if s.first != nil {
		s.passed = s.first.push(block, s.passed[:0])
		block = s.passed
	}
	return s.step(block, out)
}

// step is push for this step alone.
func (s *Stream) step(block, out []float64) []float64 {
	s.hold(block)
	ready := (s.held - 2*s.reach - 1 + s.factor) / s.factor
	if ready <= 0 {
		return out
	}
	from := len(out)
	out = append(out, make([]float64, ready)...)
	for n, p := range s.filter {
		lane := s.lanes[n]
		weigh(out[from:], lane[p.first:], p.taps)
		s.lanes[n] = lane[:copy(lane, lane[ready:])]
	}
	s.held -= ready * s.factor
	return out
}

// hold lays the samples of a block side by side with those they are weighed with.
func (s *Stream) hold(block []float64) {
	for n := range min(s.factor, len(block)) {
		lane := &s.lanes[(s.held+n)%s.factor]
		part := block[n:]
		had, more := len(*lane), (len(part)+s.factor-1)/s.factor
		*lane = slices.Grow(*lane, more)[:had+more]
		fresh := (*lane)[had:]
		for k := range fresh {
			fresh[k] = part[k*s.factor]
		}
	}
	s.held += len(block)
}

// weigh adds to each of out the samples of x from its place on, each times its tap. Four
// taps are taken along all of out at once: each sample is then loaded once for four
// products, and no sum waits for the one before it.
func weigh(out, x, taps []float64) {
	for ; len(taps) >= 4; taps, x = taps[4:], x[4:] {
		t0, t1, t2, t3 := taps[0], taps[1], taps[2], taps[3]
		a, b, c := x[0], x[1], x[2]
		ahead := x[3 : 3+len(out)]
		for n := range out {
			d := ahead[n]
			out[n] += (t0*a + t1*b) + (t2*c + t3*d)
			a, b, c = b, c, d
		}
	}
	for k, tap := range taps {
		now := x[k : k+len(out)]
		for n := range out {
			out[n] += tap * now[n]
		}
	}
}
