package contour

import (
	"math"

	"earlychorus/core/music"
)

// The candidates say which note; the refiner says where exactly it lies, from
// the phases of its harmonics. Each harmonic is picked out by a Hann window as
// long as a whole number of periods, so that every other harmonic falls on a
// null of the window and disturbs nothing; the window's own derivative then
// tells how far the harmonic's frequency is off (F. Auger and P. Flandrin,
// IEEE Trans. Signal Process. 43(5), 1995: reassigned frequency). Harmonics
// are averaged by how much each knows: its power times its number squared.
type refiner struct {
	x     []float64
	rate  float64
	wx    []float64 // windowed samples
	dx    []float64 // samples under the window's derivative
	ranks ranking   // the harmonics worth asking
	since int       // frames since they were ranked
	near  music.Hertz
	power []float64     // scratch
	kept  []keptReading // by frame
	// contrasts were asked of a sound that no later block changes.
	contrasts map[contrastAsked]float64
}

// ranking is the harmonics worth asking, best first.
type ranking struct {
	of    [asked]int
	count int
}

// keptReading is what was read of a frame, and what it was read with.
type keptReading struct {
	ranked music.Hertz // what the frame's harmonics were ranked for, and how; 0 for never
	ranks  ranking
	coarse music.Hertz // what its pitch was read from; 0 for never
	by     ranking
	pitch  music.Hertz
}

const (
	refineSeconds   = 0.040 // the window is about this long
	refinePeriods   = 3     // and at least so many periods
	ranked          = 12    // harmonics looked at when ranking
	asked           = 4     // harmonics asked afterwards
	rankAgain       = 25    // frames
	highestHarmonic = 0.42  // of the rate
	// A harmonic that disagrees with the coarse pitch by more is not asked again,
	// and a result that does is not believed.
	mostRefined = music.Cents(45)
	// A coarse pitch farther off than this puts the nulls off too: look twice. A
	// window of few periods has its nulls where neighbours are still strong.
	lookTwice    = music.Cents(4)
	lookTwiceLow = music.Cents(0.5)
	fewPeriods   = 5
)

// refine moves every pitch to where the harmonics say it lies. Frames beside a
// click are filled in from those around them, when these agree.
func (t *Take) refine(frames []Frame) {
	hidden := make([]bool, len(frames))
	for _, c := range t.l.clicks {
		reach := clickReach
		if n := max(0, Index(music.Seconds(c.from-clickBefore))); n < len(frames) && frames[n].Voiced() {
			reach = max(reach, periodsInWindow/2/float64(frames[n].Pitch))
		}
		from, to := Index(music.Seconds(c.from-reach)), Index(music.Seconds(c.to+reach))
		for n := max(0, from); n <= min(to, len(frames)-1); n++ {
			hidden[n] = true
		}
	}
	even := make([]bool, len(frames)) // those that can be read off their neighbours
	for n := 3; n < len(frames)-3; n += 2 {
		even[n] = smooth(frames[n-3:n+4], hidden[n-3:n+4])
	}
	t.fine.near = 0
	for n := range frames {
		if frames[n].Voiced() && !hidden[n] && !even[n] {
			frames[n].Pitch = t.fine.refineFrame(n, frames[n].Pitch)
		}
	}
	for n := range frames {
		if even[n] { // a cubic through four neighbours, at its middle
			frames[n].Pitch = (9*(frames[n-1].Pitch+frames[n+1].Pitch) - frames[n-3].Pitch - frames[n+3].Pitch) / 16
		}
	}
	bridge(frames, hidden)
	sharpen(frames)
}

const (
	clickReach   = 0.022 // seconds before and after a click in which it disturbs, at least
	clickBefore  = 0.06  // seconds before it, where the note beside it is heard
	longestLeap  = 14    // frames that may be filled in
	bridgedCents = music.Cents(80)
)

var smoothSpan = music.Within(30)

// smooth reports whether frames lie in one unbroken, nearly level line.
func smooth(frames []Frame, hidden []bool) bool {
	for n, f := range frames {
		if !f.Voiced() || hidden[n] || !smoothSpan.Holds(frames[0].Pitch, f.Pitch) {
			return false
		}
	}
	return true
}

// bridge fills hidden frames in when the pitches before and after agree.
func bridge(frames []Frame, hidden []bool) {
	for from := 0; from < len(frames); from++ {
		if !hidden[from] {
			continue
		}
		to := from
		for to < len(frames) && hidden[to] {
			to++
		}
		if from > 0 && to < len(frames) && to-from <= longestLeap && frames[from-1].Voiced() && frames[to].Voiced() {
			a, b := frames[from-1], frames[to]
			if off := music.Between(a.Pitch, b.Pitch); max(off, -off) <= bridgedCents {
				for n := from; n < to; n++ {
					share := float64(n-from+1) / float64(to-from+1)
					frames[n].Pitch = (off * music.Cents(share)).Above(a.Pitch)
					frames[n].Confidence = min(a.Confidence, b.Confidence)
				}
			}
		}
		from = to
	}
}

// sharpen gives back what the refiner's window takes from a vibrato. The
// refined pitch is the true one seen through the window, whose standard
// deviation is hannDeviation of its length; to second order it is too small by
// half the variance times the curvature. The curvature is that of the parabola
// fitted to five frames.
func sharpen(frames []Frame) {
	before := make([]float64, len(frames)) // log₂ of the pitches as refined
	for n, f := range frames {
		if f.Voiced() {
			before[n] = math.Log2(float64(f.Pitch))
		}
	}
	for n := 2; n < len(frames)-2; n++ {
		if !together(before[n-2 : n+3]) {
			continue
		}
		y := before[n-2 : n+3]
		curvature := (2*y[0] - y[1] - 2*y[2] - y[3] + 2*y[4]) / 7 / float64(Hop*Hop)
		deviation := hannDeviation * windowPeriods(frames[n].Pitch) / float64(frames[n].Pitch)
		frames[n].Pitch = music.Hertz(math.Exp2(y[2] - deviation*deviation/2*curvature))
	}
}

const (
	hannDeviation = 0.1808          // √(1/12 − 1/(2π²))
	togetherSpan  = 60. / 1200 / 2. // octaves between neighbours
)

// together reports whether five pitches belong to one unbroken line.
func together(y []float64) bool {
	for k := range y {
		if y[k] == 0 || k > 0 && math.Abs(y[k]-y[k-1]) > togetherSpan {
			return false
		}
	}
	return true
}

// windowPeriods is how many periods of a pitch the refiner's window holds.
func windowPeriods(pitch music.Hertz) float64 {
	return max(refinePeriods, math.Ceil(refineSeconds*float64(pitch)))
}

func newRefiner(x []float64, rate float64) *refiner {
	return &refiner{x: x, rate: rate}
}

// refine returns the pitch near coarse at a moment, or coarse itself where
// nothing better can be said.
func (r *refiner) refine(coarse music.Hertz, at music.Seconds) music.Hertz {
	if r.ranksAgain(coarse) {
		r.ranks = r.rank(coarse, at)
	}
	return r.read(coarse, at)
}

// refineFrame is refine for a frame, answered from what was kept where nothing differs.
func (r *refiner) refineFrame(n int, coarse music.Hertz) music.Hertz {
	if more := n + 1 - len(r.kept); more > 0 {
		r.kept = append(r.kept, make([]keptReading, more)...)
	}
	k := &r.kept[n]
	if r.ranksAgain(coarse) {
		if k.ranked != coarse {
			k.ranked, k.ranks = coarse, r.rank(coarse, Time(n))
		}
		r.ranks = k.ranks
	}
	if k.coarse != coarse || k.by != r.ranks {
		k.coarse, k.by, k.pitch = coarse, r.ranks, r.read(coarse, Time(n))
	}
	return k.pitch
}

// rankAway is how far a pitch may go before the harmonics are ranked anew.
var rankAway = music.Within(60)

// ranksAgain reports whether the harmonics must be ranked anew, and counts the frames.
func (r *refiner) ranksAgain(coarse music.Hertz) bool {
	again := r.near == 0 || r.since >= rankAgain || !rankAway.Holds(coarse, r.near)
	if again {
		r.since = 0
	}
	r.since++
	r.near = coarse
	return again
}

// read reads the pitch near coarse off the ranked harmonics.
func (r *refiner) read(coarse music.Hertz, at music.Seconds) music.Hertz {
	pitch := r.look(coarse, at)
	enough := lookTwice
	if windowPeriods(coarse) <= fewPeriods {
		enough = lookTwiceLow
	}
	if off := music.Between(coarse, pitch); max(off, -off) > enough {
		pitch = r.look(pitch, at)
	}
	if off := music.Between(coarse, pitch); !(max(off, -off) <= mostRefined) {
		return coarse
	}
	return pitch
}

// rank chooses the harmonics that know most.
func (r *refiner) rank(pitch music.Hertz, at music.Seconds) (out ranking) {
	most := max(1, min(ranked, int(highestHarmonic*r.rate/float64(pitch))))
	r.window(pitch, at)
	worth := make([]float64, most)
	powers := r.powers(pitch, most)
	for h := 1; h <= most; h++ {
		worth[h-1] = powers[h] * float64(h*h)
	}
	for out.count = 0; out.count < min(asked, most); out.count++ {
		best := 0
		for k := range worth {
			if worth[k] > worth[best] {
				best = k
			}
		}
		out.of[out.count] = best + 1
		worth[best] = -1
	}
	return out
}

// look averages the harmonics' frequencies, each divided by its number.
func (r *refiner) look(pitch music.Hertz, at music.Seconds) music.Hertz {
	r.window(pitch, at)
	var sum, weights float64
	add := func(h int, power, off float64) {
		if math.Abs(off) < harmonicSpan*float64(pitch)*float64(h) {
			w := power * float64(h*h)
			sum, weights = sum+w*(float64(pitch)+off/float64(h)), weights+w
		}
	}
	k, ranks := 0, r.ranks.of[:r.ranks.count]
	for ; k+1 < len(ranks); k += 2 {
		a, b := r.two(ranks[k], ranks[k+1], pitch)
		add(ranks[k], a.power(), a.off(pitch))
		add(ranks[k+1], b.power(), b.off(pitch))
	}
	if k < len(ranks) {
		power, off := r.harmonic(ranks[k], pitch)
		add(ranks[k], power, off)
	}
	if weights == 0 {
		return pitch
	}
	return music.Hertz(sum / weights)
}

// harmonicSpan is how far, of its frequency, a harmonic may lie off and be
// believed: half a semitone.
const harmonicSpan = 0.03

// window prepares the windowed samples around a moment.
func (r *refiner) window(pitch music.Hertz, at music.Seconds) {
	length := windowPeriods(pitch) * r.rate / float64(pitch)
	centre := float64(at) * r.rate
	first, last := max(0, int(math.Ceil(centre-length/2))), min(len(r.x)-1, int(math.Floor(centre+length/2)))
	r.wx, r.dx = r.wx[:0], r.dx[:0]
	if last <= first {
		return
	}
	count := last - first + 1
	if cap(r.wx) < count {
		r.wx, r.dx = make([]float64, 0, 2*count), make([]float64, 0, 2*count)
	}
	r.wx, r.dx = r.wx[:count], r.dx[:count]
	turn := 2 * math.Pi / length
	sin, cos := math.Sincos(turn * (float64(first) - centre))
	stepSin, stepCos := math.Sincos(turn)
	x, wx, dx := r.x[first:last+1], r.wx[:count], r.dx[:count]
	for n, v := range x {
		wx[n] = v * (0.5 + 0.5*cos)
		dx[n] = -v * sin // times π/length, applied in off
		sin, cos = sin*stepCos+cos*stepSin, cos*stepCos-sin*stepSin
	}
}

// demodulated is one harmonic under the window (re, im) and under the window's
// derivative (dre, dim).
type demodulated struct{ re, im, dre, dim float64 }

func (d demodulated) power() float64 { return d.re*d.re + d.im*d.im }

// off is how many hertz the harmonic lies above where it should.
func (d demodulated) off(pitch music.Hertz) float64 {
	power := d.power()
	if power == 0 {
		return 0
	}
	// The window's derivative per second is dx·π/length, the length being
	// windowPeriods/pitch; the imaginary part of D/X, in hertz.
	return -float64(pitch) / windowPeriods(pitch) / 2 * (d.dim*d.re - d.dre*d.im) / power
}

// harmonic returns the power of harmonic h of pitch and how many hertz it lies
// above where it should.
func (r *refiner) harmonic(h int, pitch music.Hertz) (power, off float64) {
	stepSin, stepCos := math.Sincos(2 * math.Pi * float64(h) * float64(pitch) / r.rate)
	cos, sin := 1., 0. // where the phase begins does not matter
	var d demodulated
	dx := r.dx[:len(r.wx)]
	for n, w := range r.wx {
		v := dx[n]
		d.re += w * cos
		d.im -= w * sin
		d.dre += v * cos
		d.dim -= v * sin
		cos, sin = cos*stepCos-sin*stepSin, sin*stepCos+cos*stepSin
	}
	return d.power(), d.off(pitch)
}

// powers returns the powers of harmonics 1 to most of pitch, by number, by Goertzel's
// recursion (G. Goertzel, American Mathematical Monthly 65 (1958), pp. 34–35): four at a
// time, since one waits for its own step before. They are good until the next call.
func (r *refiner) powers(pitch music.Hertz, most int) []float64 {
	r.power = append(r.power[:0], make([]float64, most+1)...)
	turn := 2 * math.Pi * float64(pitch) / r.rate
	for h := 1; h <= most; h += 4 {
		c0, c1 := 2*math.Cos(turn*float64(h)), 2*math.Cos(turn*float64(h+1))
		c2, c3 := 2*math.Cos(turn*float64(h+2)), 2*math.Cos(turn*float64(h+3))
		var a0, b0, a1, b1, a2, b2, a3, b3 float64 // the last step of each, and the one before
		for _, x := range r.wx {
			a0, b0 = x+c0*a0-b0, a0
			a1, b1 = x+c1*a1-b1, a1
			a2, b2 = x+c2*a2-b2, a2
			a3, b3 = x+c3*a3-b3, a3
		}
		of := [4]float64{
			a0*a0 + b0*b0 - c0*a0*b0,
			a1*a1 + b1*b1 - c1*a1*b1,
			a2*a2 + b2*b2 - c2*a2*b2,
			a3*a3 + b3*b3 - c3*a3*b3,
		}
		for k := 0; k < 4 && h+k <= most; k++ {
			r.power[h+k] = max(0, of[k])
		}
	}
	return r.power
}

// two demodulates two harmonics side by side: each step of one waits for the step before,
// so the other's costs nothing. A harmonic is summed by G. Goertzel's recurrence (American
// Mathematical Monthly 65, 1958), which needs its angle at the end alone.
func (r *refiner) two(g, h int, pitch music.Hertz) (a, b demodulated) {
	angleA := 2 * math.Pi * float64(g) * float64(pitch) / r.rate
	angleB := 2 * math.Pi * float64(h) * float64(pitch) / r.rate
	turnA, turnB := 2*math.Cos(angleA), 2*math.Cos(angleB)
	var x1, x2, dx1, dx2, y1, y2, dy1, dy2 float64
	dx := r.dx[:len(r.wx)]
	for n, w := range r.wx {
		v := dx[n]
		x1, x2 = (w-x2)+turnA*x1, x1
		y1, y2 = (w-y2)+turnB*y1, y1
		dx1, dx2 = (v-dx2)+turnA*dx1, dx1
		dy1, dy2 = (v-dy2)+turnB*dy1, dy1
	}
	last := float64(len(r.wx) - 1)
	a.re, a.im = turned(x1, x2, angleA, last)
	a.dre, a.dim = turned(dx1, dx2, angleA, last)
	b.re, b.im = turned(y1, y2, angleB, last)
	b.dre, b.dim = turned(dy1, dy2, angleB, last)
	return a, b
}

// turned is the sum that a recurrence ended with, turned back to its first sample.
func turned(s1, s2, angle, last float64) (re, im float64) {
	sin, cos := math.Sincos(angle)
	re, im = s1-cos*s2, sin*s2
	sin, cos = math.Sincos(angle * last)
	return re*cos + im*sin, im*cos - re*sin
}
