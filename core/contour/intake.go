package contour

import (
	"earlychorus/core/audio"
	"earlychorus/core/dsp"
)

// intake takes a sound in, block by block, and cuts it down to what its listener needs.
type intake struct {
	sound  audio.Mono // as far as it has come
	ended  bool
	clicks *clickFinder
	cut    cut
	low    *dsp.Stream // farther, for the listener's lower scales; nil where it has none
	bright *bright     // nil where pitch alone is asked
	direct dsp.DCBlock
	soft   [2]softener // of the sound's clicks, then of its slope's
	l      *listener
}

// newIntake prepares an intake for pitch alone, or for the upper harmonics too.
func (e Ear) newIntake(rate int, upper bool) intake {
	factor := e.factor(rate)
	l := &listener{rate: float64(rate) / float64(factor)}
	e.addScales(l)
	in := intake{
		sound:  audio.Mono{Rate: rate},
		clicks: newClickFinder(rate),
		cut:    newCut(factor),
		direct: dsp.NewDCBlock(dcCorner / l.rate),
		soft:   [2]softener{{rate: l.rate, passes: true}, {rate: l.rate}},
		l:      l,
	}
	if upper {
		in.cut.addUpper(brightFactor(rate))
		in.bright = newBright(rate)
	}
	if len(l.scales) > 1 {
		in.low = dsp.NewStream(l.lowFactor(), passedShare, 0.5)
	}
	return in
}

// expect makes room for so many samples at once, so that none have to be moved.
func (in *intake) expect(samples int) {
	if in.sound.Samples != nil || samples <= 0 {
		return
	}
	in.sound.Samples = make([]float64, 0, samples)
	in.reserve(samples)
}

// reserve makes room for what a sound of so many samples is cut down to.
func (in *intake) reserve(samples int) {
	cut := int(float64(samples)*in.l.rate/float64(in.sound.Rate)) + 1
	in.soft[1].x = make([]float64, 0, cut)
	if in.bright != nil {
		in.bright.envelope.reserve(samples / brightFactor(in.sound.Rate))
	}
}

// intakeBlock is as much of a long block as is taken at once, so that little of what lies
// between is kept.
const intakeBlock = 1 << 14

func (in *intake) hear(samples []float64) {
	if in.sound.Samples == nil {
		in.sound.Samples = samples[:len(samples):len(samples)] // a whole sound is not copied
		in.reserve(len(samples))
	} else {
		in.sound.Samples = append(in.sound.Samples, samples...)
	}
	for ; len(samples) > intakeBlock; samples = samples[intakeBlock:] {
		in.pass(in.cut.push(samples[:intakeBlock]))
	}
	in.pass(in.cut.push(samples))
}

func (in *intake) end() {
	in.ended = true
	in.pass(in.cut.end())
}

// pass hands on what a block was cut down to.
func (in *intake) pass(base, upper []float64) {
	in.settle(base)
	if in.bright != nil {
		in.bright.lift(upper)
	}
}

// settle leads the listener on by samples at its rate.
func (in *intake) settle(x []float64) {
	in.direct.Push(x)
	in.clicks.advance(in.sound.Samples, in.ended)
	for n, of := range []burstFinder{in.clicks.plain, in.clicks.sloping} {
		s := &in.soft[n]
		x = s.advance(x, in.clicks.seconds(of, s.taken), in.clicks.horizon(of), in.ended)
	}
	in.l.x = in.soft[1].x[:in.soft[1].settled]
	in.l.scales[0].x = in.l.x
	in.l.clicks = append(in.clicks.seconds(in.clicks.plain, 0), in.clicks.seconds(in.clicks.sloping, 0)...)
	if in.low == nil {
		return
	}
	y := in.low.Push(x)
	if in.ended {
		y = append(y, in.low.End()...)
	}
	low := append(in.l.scales[1].x, y...)
	for k := 1; k < len(in.l.scales); k++ {
		in.l.scales[k].x = low
	}
}
