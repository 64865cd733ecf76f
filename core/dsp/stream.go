package dsp

// Stream keeps every factor-th sample of a sound that comes in blocks: what
// Decimate does to a whole one, a filter's half later. What comes out does not
// depend on where the blocks were cut.
type Stream struct {
	factor int
	taps   []float64
	held   []float64 // not yet used up, the filter's reach before the next sample
	first  *Stream   // an earlier step, for factors of 4 and more
}

// streamBlock is as much of a long block as is taken at once, so that the steps of a
// stream pass it on while it is near the processor.
const streamBlock = 4096

// NewStream prepares a stream; factor and pass are those of Decimate.
func NewStream(factor int, pass float64) *Stream {
	if factor%2 == 0 && factor > 2 {
		clean := 0.5 / float64(factor)
		s := NewStream(factor/2, pass)
		first := newStep(2, pass/float64(factor), 0.5-clean)
		last := s
		for last.first != nil {
			last = last.first
		}
		last.first = first
		return s
	}
	return newStep(factor, pass/float64(factor), 0.5/float64(factor))
}

func newStep(factor int, pass, stop float64) *Stream {
	taps := []float64{1}
	if factor > 1 {
		taps = lowpass((pass+stop)/2, tapsFor(stop-pass))
	}
	return &Stream{factor: factor, taps: taps, held: make([]float64, len(taps)/2)}
}

// Push takes a block and returns the samples that are now complete.
func (s *Stream) Push(block []float64) []float64 {
	out := make([]float64, 0, len(block)/s.total()+1)
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
	return s.step(make([]float64, len(s.taps)/2), out)
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
		block = s.first.push(block, nil)
	}
	return s.step(block, out)
}

// step is push for this step alone.
func (s *Stream) step(block, out []float64) []float64 {
	s.held = append(s.held, block...)
	at := 0
	for ; at+len(s.taps) <= len(s.held); at += s.factor {
		out = append(out, dot(s.taps, s.held[at:at+len(s.taps)]))
	}
	kept := copy(s.held, s.held[min(at, len(s.held)):])
	s.held = s.held[:kept]
	return out
}
