package dsp

// Stream keeps every factor-th sample of a sound that comes in blocks: what
// Decimate does to a whole one, a filter's half later.
type Stream struct {
	factor int
	taps   []float64
	held   []float64 // not yet used up, the filter's reach before the next sample
	first  *Stream   // an earlier step, for factors of 4 and more
}

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
	if s.first != nil {
		block = s.first.Push(block)
	}
	s.held = append(s.held, block...)
	var out []float64
	at := 0
	for ; at+len(s.taps) <= len(s.held); at += s.factor {
		out = append(out, dot(s.taps, s.held[at:at+len(s.taps)]))
	}
	s.held = append(s.held[:0], s.held[min(at, len(s.held)):]...)
	return out
}
