package contour

import "math"

// softener turns clicks in a sound down to the loudness around them, as it comes in. A
// pitch beside a click is then heard through it, and a click alone is not a note.
type softener struct {
	rate    float64
	passes  bool      // what is settled is passed on, and not kept
	dropped int       // samples passed on and forgotten
	x       []float64 // the ones behind them, softened up to settled
	settled int       // counted from the first of all
	taken   int       // clicks taken over from their finder
	spare   []float64 // what x was before
	waiting []stretch // of these, the ones whose surroundings have not all come in, in seconds
}

// advance takes the next samples and clicks and returns the samples that no click will
// change any more. Clicks that are yet to come begin at horizon, in seconds, or later.
func (s *softener) advance(samples []float64, clicks []stretch, horizon float64, ended bool) []float64 {
	s.x = append(s.x, samples...)
	s.taken += len(clicks)
	s.waiting = append(s.waiting, clicks...)
	for len(s.waiting) > 0 {
		c := s.waiting[0]
		if !ended && int(c.to*s.rate)+s.around() > s.dropped+len(s.x) {
			break
		}
		s.soften(c)
		s.waiting = s.waiting[1:]
	}
	limit := s.dropped + len(s.x)
	if !ended {
		limit = min(limit, int(horizon*s.rate))
	}
	if len(s.waiting) > 0 {
		limit = min(limit, int(s.waiting[0].from*s.rate))
	}
	from := s.settled
	s.settled = max(from, limit)
	out := s.x[from-s.dropped : s.settled-s.dropped]
	if s.passes {
		s.drop()
	}
	return out
}

// drop forgets what no click reaches back to. It leaves what was just returned where it is.
func (s *softener) drop() {
	over := s.settled - s.around() - s.dropped
	if over < len(s.x)/2 || over <= 0 {
		return
	}
	s.x, s.spare = append(s.spare[:0], s.x[over:]...), s.x
	s.dropped += over
}

func (s *softener) around() int { return int(clickAround * s.rate) }

func (s *softener) soften(c stretch) {
	x, around, block := s.x, s.around(), max(1, int(clickBlock*s.rate))
	from, to := max(0, int(c.from*s.rate)-s.dropped), min(len(x), int(c.to*s.rate)-s.dropped)
	base := max(
		loudest(blockLevels(x[max(0, from-around):from], block)),
		loudest(blockLevels(x[to:min(len(x), to+around)], block)),
	)
	for at := from; at < to; at += block {
		part := x[at:min(to, at+block)]
		over := blockLevel(part) - base
		if over <= 0 {
			continue
		}
		gain := math.Pow(10, -over/20)
		for k := range part {
			part[k] *= gain
		}
	}
}
