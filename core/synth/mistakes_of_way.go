package synth

import (
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// mistakesOfArticulation are those of the tongue.
var mistakesOfArticulation = []Mistake{
	{
		Key:   "not-tongued",
		Label: "Player who does not tongue",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return played(s, i, targets, n) && adjoins(targets, n) && targets[n].Target == targets[n-1].Target &&
				targets[n].Articulation != scores.Slurred && targets[n].Dynamic == ""
		}),
		Make: func(p *Playing, n int) {
			targets := p.Score.Targets()
			for k := 1; k < len(targets); k++ {
				same := targets[k].Target == targets[k-1].Target && targets[k].Target == targets[n].Target
				if adjoins(targets, k) && same {
					p.target(k).Articulation = scores.Slurred
				}
			}
		},
	},
	{
		Key:   "tongues-slurs",
		Label: "Player who tongues slurs",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return played(s, i, targets, n) && adjoins(targets, n) && targets[n].Articulation == scores.Slurred &&
				targets[n].Target != targets[n-1].Target
		}),
		Make: func(p *Playing, n int) { p.target(n).Articulation = scores.Tongued },
	},
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
