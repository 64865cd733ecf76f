package contour

import (
	"math"
	"slices"

	"earlychorus/core/dsp"
	"earlychorus/core/music"
)

// Live is the ear while the sound still comes: the same candidates, weighed the
// same way, with a short look ahead in place of the whole take. What it says is
// for the eye; the whole take is heard again afterwards.
type Live struct {
	ear     Ear
	rate    float64 // of the sound that comes in
	base    *dsp.Stream
	low     *dsp.Stream // for the scales below; nil when there are none
	l       *listener
	find    *finder
	fine    *refiner
	energy  []float64 // of each hop's samples, and their number
	pending []float64 // samples of the hop that is not full yet
	heard   int       // samples that came in
	next    int       // frame to be decided next
	before  []candidate
	costs   []float64 // of the states of the frame before; the last is silence
	quiet   *quietest
	dropped int // samples at the listener's rate already forgotten
}

// liveAhead is how far beyond a frame's centre the ear may hear before it
// decides. Windows that reach farther, of low notes, end there instead.
const (
	liveAhead  = 0.022 // seconds
	liveMemory = 0.5   // seconds of sound kept
	liveGate   = music.Decibels(6)
	// The first second has no quiet to compare with but itself.
	quietMemory = 300 // frames
)

// NewLive prepares the ear for a sound of the given rate (16 to 96 kHz).
func (e Ear) NewLive(rate int) (*Live, error) {
	if !rateHeard(rate) {
		return nil, ErrRate
	}
	factor := e.factor(rate)
	l := &listener{rate: float64(rate) / float64(factor)}
	e.addScales(l)
	live := &Live{
		ear:   e,
		rate:  float64(rate),
		base:  dsp.NewStream(factor, passedShare, 0.5),
		l:     l,
		quiet: newQuietest(quietMemory),
		fine:  newRefiner(nil, l.rate),
		costs: []float64{0},
	}
	if len(l.scales) > 1 {
		live.low = dsp.NewStream(l.lowFactor(), passedShare, 0.5)
	}
	live.find = l.newFinder()
	return live, nil
}

// Hear takes the next samples and returns the frames that are now decided, in
// order of time, from frame First on.
func (v *Live) Hear(samples []float64) (first int, frames []Frame) {
	v.takeIn(samples)
	first = v.next
	for v.ready(v.next) {
		frames = append(frames, v.decide(v.next))
		v.next++
	}
	v.forget()
	return first, frames
}

func (v *Live) takeIn(samples []float64) {
	v.heard += len(samples)
	v.pending = append(v.pending, samples...)
	used := 0
	for {
		hop := v.hopFrom(len(v.energy)+1) - v.hopFrom(len(v.energy))
		if len(v.pending)-used < hop {
			break
		}
		v.energy = append(v.energy, energy(v.pending[used:used+hop])/float64(hop))
		used += hop
	}
	v.pending = append(v.pending[:0], v.pending[used:]...)
	x := v.base.Push(samples)
	v.l.x = append(v.l.x, x...)
	v.l.scales[0].x = v.l.x
	if v.low != nil {
		y := v.low.Push(x)
		for k := 1; k < len(v.l.scales); k++ {
			v.l.scales[k].x = append(v.l.scales[k].x, y...)
		}
	}
	v.fine.x = v.l.x
}

// hopFrom is the sample that hop n begins with.
func (v *Live) hopFrom(n int) int { return int(math.Round(float64(n) * float64(Hop) * v.rate)) }

// ready reports whether enough was heard to decide frame n.
func (v *Live) ready(n int) bool {
	have := float64(len(v.l.x)+v.dropped) / v.l.rate
	return float64(Time(n))+liveAhead <= have && n+1 < len(v.energy)
}

func (v *Live) decide(n int) Frame {
	f := Frame{Level: v.level(n)}
	v.quiet.add(float64(f.Level))
	heard := frame{}
	if f.Level >= max(lowestGate, music.Decibels(v.quiet.level())+liveGate) {
		heard = v.listen(n)
	}
	if c, ok := v.choose(heard); ok {
		at := Time(n) - music.Seconds(float64(v.dropped)/v.l.rate)
		f.Pitch, f.Confidence = v.fine.refine(c.pitch, at), max(0, min(1, c.clarity))
	}
	return f
}

func (v *Live) level(n int) music.Decibels {
	if n == 0 {
		return decibels(v.energy[0] / 2)
	}
	return decibels((v.energy[n-1] + v.energy[n]) / 2)
}

// listen finds a frame's candidates, each scale's window moved back as far as
// it must be to end within liveAhead.
func (v *Live) listen(n int) frame {
	for k := range v.l.scales {
		s := &v.l.scales[k]
		length := s.correlator.Length()
		end := int((float64(Time(n))+liveAhead)*s.rate) - int(float64(v.dropped)*s.rate/v.l.rate)
		from := min(int(float64(Time(n))*s.rate)-int(float64(v.dropped)*s.rate/v.l.rate)-length/2, end-length)
		window := make([]float64, length)
		for j := range window {
			if at := from + j; at >= 0 && at < len(s.x) {
				window[j] = s.x[at]
			}
		}
		s.correlator.NSDF(window, nil, v.find.a[k], nil)
	}
	return v.find.gather(v.find.a, nil)
}

// choose takes the state that is likeliest now, given all before it.
func (v *Live) choose(heard frame) (candidate, bool) {
	pitched := certainty(heard, usualThreshold)
	costs := make([]float64, len(heard.candidates)+1)
	for k := range costs {
		best := math.Inf(1)
		for j, c := range v.costs {
			best = math.Min(best, c+change(v.before, j, heard.candidates, k))
		}
		costs[k] = best + stateCost(heard, k, pitched)
	}
	least := slices.Min(costs)
	for k := range costs {
		costs[k] -= least
	}
	v.before, v.costs = heard.candidates, costs
	k := slices.Index(costs, 0)
	if k == len(heard.candidates) {
		return candidate{}, false
	}
	return heard.candidates[k], true
}

// forget lets go of sound that no window reaches any more, once there is much of it.
func (v *Live) forget() {
	keep := int(liveMemory * v.l.rate)
	low := 1
	if v.low != nil {
		low = v.l.lowFactor()
	}
	drop := (len(v.l.x) - keep) / low * low
	if drop < 2*keep {
		return
	}
	v.l.x = append(v.l.x[:0], v.l.x[drop:]...)
	v.l.scales[0].x, v.fine.x = v.l.x, v.l.x
	for k := 1; k < len(v.l.scales); k++ {
		s := &v.l.scales[k]
		s.x = append(s.x[:0], s.x[min(len(s.x), drop/low):]...)
	}
	v.dropped += drop
}

// quietest remembers how quiet it lately was.
type quietest struct {
	last  []float64
	at    int
	least float64
}

func newQuietest(frames int) *quietest {
	return &quietest{last: make([]float64, 0, frames), least: math.Inf(1)}
}

func (q *quietest) add(level float64) {
	if len(q.last) < cap(q.last) {
		q.last = append(q.last, level)
		q.least = min(q.least, level)
		return
	}
	gone := q.last[q.at]
	q.last[q.at] = level
	q.at = (q.at + 1) % len(q.last)
	if q.least = min(q.least, level); gone == q.least {
		q.least = slices.Min(q.last)
	}
}

// level is the least of what is remembered, but never above what a room may be.
func (q *quietest) level() float64 { return math.Min(q.least, loudestRoom) }

// loudestRoom is the loudest quiet: a player who starts at once is not a room.
const loudestRoom = -50.
