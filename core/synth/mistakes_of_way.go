package synth

import (
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
)

// mistakesOfArticulation are those of the tongue.
var mistakesOfArticulation = []Mistake{
	{
		Key:   "not-tongued",
		Label: "Player who does not tongue",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return played(s, i, targets, n) && scores.Follows(targets, n) && targets[n].Target == targets[n-1].Target &&
				targets[n].Articulation != scores.Slurred && targets[n].Dynamic == ""
		}),
		Make: func(p *Playing, n int) {
			targets := p.Score.Targets()
			for k := 1; k < len(targets); k++ {
				same := targets[k].Target == targets[k-1].Target && targets[k].Target == targets[n].Target
				if scores.Follows(targets, k) && same {
					p.target(k).Articulation = scores.Slurred
				}
			}
		},
	},
	{
		Key:   "tongues-slurs",
		Label: "Player who tongues slurs",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return played(s, i, targets, n) && joined(targets, n, scores.Slurred)
		}),
		Make: func(p *Playing, n int) { p.target(n).Articulation = scores.Tongued },
	},
	{
		Key:   "breathes-starts",
		Label: "Player who starts without the tongue",
		At:    starts(scores.Tongued),
		Make:  func(p *Playing, n int) { p.target(n).Articulation = scores.BreathStart },
	},
	{
		Key:   "tongues-starts",
		Label: "Player who tongues a start of the breath",
		At:    starts(scores.BreathStart),
		Make:  func(p *Playing, n int) { p.target(n).Articulation = scores.Tongued },
	},
	{
		Key:   "slurs-instead",
		Label: "Player who slurs a tongued line",
		At:    lines(scores.Tongued),
		Make:  func(p *Playing, _ int) { p.join(scores.Tongued, scores.Slurred) },
	},
	{
		Key:   "tongues-instead",
		Label: "Player who tongues a slurred line",
		At:    lines(scores.Slurred),
		Make:  func(p *Playing, _ int) { p.join(scores.Slurred, scores.Tongued) },
	},
}

// starts are the places where a note begins after a rest, in a way.
func starts(how scores.Articulation) func(scores.Score, instrument.Instrument) []int {
	return where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
		return played(s, i, targets, n) && !scores.Follows(targets, n) && targets[n].Articulation == how
	})
}

// lines is the first note of a step with enough notes joined in a way.
func lines(how scores.Articulation) func(scores.Score, instrument.Instrument) []int {
	return func(s scores.Score, _ instrument.Instrument) []int {
		targets, count := s.Targets(), 0
		for n := range targets {
			if joined(targets, n, how) {
				count++
			}
		}
		if count < measure.FewestJoins {
			return nil
		}
		return []int{0}
	}
}

// joined reports whether a note follows another pitch in a way.
func joined(targets []scores.Segment, n int, how scores.Articulation) bool {
	return scores.Follows(targets, n) && targets[n].Phase == scores.Play && targets[n].Articulation == how &&
		targets[n].Target != targets[n-1].Target
}

// join joins every line in another way than it is written.
func (p *Playing) join(from, to scores.Articulation) {
	targets := p.Score.Targets()
	for n := range targets {
		if joined(targets, n, from) {
			p.target(n).Articulation = to
		}
	}
}

// mistakesOfWay are those in which something is done another way than asked, or
// not at all.
var mistakesOfWay = []Mistake{
	{
		Key:   "plays-instead",
		Label: "Player who plays instead of singing",
		At: where(func(_ scores.Score, _ instrument.Instrument, targets []scores.Segment, n int) bool {
			return targets[n].Phase == scores.Sing && (n == 0 || targets[n-1].Phase != scores.Sing)
		}),
		Make: func(p *Playing, _ int) { p.swap(scores.Sing, scores.Play) },
	},
	{
		Key:   "does-not-sing",
		Label: "Player who does not sing",
		At: where(func(_ scores.Score, _ instrument.Instrument, targets []scores.Segment, n int) bool {
			return targets[n].Phase == scores.Sing && (n == 0 || targets[n-1].Phase != scores.Sing)
		}),
		Make: func(p *Playing, _ int) { p.swap(scores.Sing, scores.Rest) },
	},
	{
		Key:   "pushes-few",
		Label: "Player who pushes too seldom",
		At:    pushed,
		Make:  func(p *Playing, _ int) { p.Player.Pulsing = 0.7 },
	},
	{
		Key:   "pushes-many",
		Label: "Player who pushes too often",
		At:    pushed,
		Make:  func(p *Playing, _ int) { p.Player.Pulsing = 1.4 },
	},
	{
		Key:   "stroke-missing",
		Label: "Percussion player who leaves a stroke out",
		At:    isStruck,
		Make: func(p *Playing, _ int) {
			strokes := 0
			for n := range p.Score.Segments {
				if seg := &p.Score.Segments[n]; seg.Phase == scores.Strike {
					if strokes++; strokes == 3 {
						seg.Phase = scores.Rest
					}
				}
			}
		},
	},
	{
		Key:   "strokes-late",
		Label: "Percussion player behind the beat",
		At:    isStruck,
		Make:  func(p *Playing, _ int) { p.Player.Late += strokesLate },
	},
	{
		Key:   "no-air-line",
		Label: "Player who leaves the air out",
		At:    has(scores.Out, scores.Play),
		Make:  func(p *Playing, _ int) { p.swap(scores.Out, scores.Rest) },
	},
	{
		Key:   "no-buzz-line",
		Label: "Player who leaves the buzz out",
		At:    has(scores.Buzz, scores.Play),
		Make:  func(p *Playing, _ int) { p.swap(scores.Buzz, scores.Rest) },
	},
}

// pushed is the first note that the air is to push.
func pushed(s scores.Score, _ instrument.Instrument) []int {
	for n, t := range s.Targets() {
		if t.Pulses > 0 {
			return []int{n}
		}
	}
	return nil
}

// isStruck is a step on a pad; it has no targets, so its mistakes are made at none.
func isStruck(s scores.Score, _ instrument.Instrument) []int {
	if len(s.Strokes()) < 3 {
		return nil
	}
	return []int{0}
}

const strokesLate = 0.16 // s

// swap does everything of one phase in another.
func (p *Playing) swap(from, to scores.Phase) {
	for n := range p.Score.Segments {
		if p.Score.Segments[n].Phase == from {
			p.Score.Segments[n].Phase = to
		}
	}
}

// has lists the first target of a score that asks for both phases.
func has(a, b scores.Phase) func(scores.Score, instrument.Instrument) []int {
	return func(s scores.Score, _ instrument.Instrument) []int {
		var first, second bool
		for _, seg := range s.Segments {
			first, second = first || seg.Phase == a, second || seg.Phase == b
		}
		if !first || !second {
			return nil
		}
		return []int{0}
	}
}
