package synth

import (
	"slices"

	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// mistakesOfTime are those against the beat.
var mistakesOfTime = []Mistake{
	{
		Key:   "left-out",
		Label: "Player who leaves a note out",
		At:    where(inside),
		Make: func(p *Playing, n int) {
			targets := p.Score.Targets()
			gone, end := targets[n].Beats, phraseEnd(targets, n)
			for k := n + 1; k < end; k++ {
				p.target(k).StartBeat -= gone
			}
			p.drop(n)
		},
	},
	{
		Key:   "missing",
		Label: "Player with a note that does not come",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return played(s, i, targets, n) && len(targets) > 1
		}),
		Make: func(p *Playing, n int) { p.drop(n) },
	},
	{
		Key:   "comes-late",
		Label: "Player whose upper note comes a beat late",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return slursUp(s, i, targets, n) && targets[n].Beats >= 2
		}),
		Make: func(p *Playing, n int) {
			p.target(n-1).Beats++
			p.target(n).StartBeat++
			p.target(n).Beats--
		},
	},
	{
		Key:   "starts-late",
		Label: "Player who starts half a beat late",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			return played(s, i, targets, n) && !scores.Follows(targets, n) && targets[n].Beats >= 2
		}),
		Make: func(p *Playing, n int) {
			late := p.Score.TempoBPM.Beats(max(halfBeatLate, p.Score.TempoBPM.Seconds(0.5)))
			p.target(n).StartBeat += late
			p.target(n).Beats -= late
		},
	},
	{
		Key:   "too-fast",
		Label: "Player faster than the tempo",
		At:    whole(runs),
		Make:  func(p *Playing, _ int) { p.hurry(func(float64) float64 { return 1 / 1.2 }) },
	},
	{
		Key:   "too-slow",
		Label: "Player slower than the tempo",
		At:    whole(runs),
		Make:  func(p *Playing, _ int) { p.hurry(func(float64) float64 { return 1.15 }) },
	},
	{
		Key:   "rushes",
		Label: "Player who speeds up",
		At:    whole(runs),
		Make:  func(p *Playing, _ int) { p.hurry(func(share float64) float64 { return 1.02 - 0.28*share }) },
	},
	{
		Key:   "uneven",
		Label: "Player whose run is uneven",
		At:    whole(isRunEven),
		Make: func(p *Playing, _ int) {
			by := unevenBy
			p.hurry(func(float64) float64 {
				by = -by
				return 1 - by
			})
		},
	},
	{
		Key:   "cut-off",
		Label: "Player who lets go too soon",
		At: where(func(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
			slurs := n+1 < len(targets) && targets[n+1].Articulation == scores.Slurred
			return long(s, i, targets, n) && !slurs && targets[n].Articulation != scores.Slurred
		}),
		Make: func(p *Playing, n int) { p.target(n).Beats *= 0.55 },
	},
	{
		Key:   "silent",
		Label: "Nobody playing",
		At:    func(scores.Score, instrument.Instrument) []int { return []int{0} },
		Make: func(p *Playing, _ int) {
			for n := range p.Score.Segments {
				if p.Score.Segments[n].Phase.Active() {
					p.Score.Segments[n].Phase = scores.Rest
				}
			}
		},
	},
}

// halfBeatLate is late whatever the tempo and the stage.
const halfBeatLate music.Seconds = 0.5

// drop rests where a target was.
func (p *Playing) drop(n int) {
	k := p.segment(n)
	p.Score.Segments[k].Phase = scores.Rest
	p.Score.Segments[k].Sounds = false
	if k+1 < len(p.Score.Segments) && p.Score.Segments[k+1].Articulation == scores.Slurred {
		p.Score.Segments[k+1].Articulation = scores.Tongued // nothing is left to slur from
	}
}

// inside is a target with others before and after it in one breath, different
// from both, so that its absence can be heard.
func inside(s scores.Score, i instrument.Instrument, targets []scores.Segment, n int) bool {
	return played(s, i, targets, n) && n+1 < len(targets) &&
		scores.Follows(targets, n) && scores.Follows(targets, n+1) &&
		targets[n].Target != targets[n-1].Target && targets[n].Target != targets[n+1].Target &&
		targets[n-1].Target != targets[n+1].Target &&
		targets[n].Beats == targets[n+1].Beats
}

// runs is a phrase long enough to have a pace.
func runs(_ scores.Score, _ instrument.Instrument, targets []scores.Segment) bool {
	for n := range targets {
		if targets[n].Phase == scores.Play && targets[n].GlideTo == 0 && phraseEnd(targets, n)-n >= fewestInRun &&
			(n == 0 || !scores.Follows(targets, n)) {
			return true
		}
	}
	return false
}

const (
	fewestInRun = 4
	unevenBy    = 0.35 // of a note's length
)

// isRunEven is a run that is judged by how even it is.
func isRunEven(s scores.Score, i instrument.Instrument, targets []scores.Segment) bool {
	asked := slices.ContainsFunc(s.Rules, func(r scores.Rule) bool { return r.Measure == measure.Evenness.Key })
	return asked && runs(s, i, targets)
}

// whole lists the first target where a condition holds for the whole step.
func whole(holds func(scores.Score, instrument.Instrument, []scores.Segment) bool) func(
	scores.Score, instrument.Instrument,
) []int {
	return func(s scores.Score, i instrument.Instrument) []int {
		if !holds(s, i, s.Targets()) {
			return nil
		}
		return []int{0}
	}
}

// hurry plays every phrase at another pace: length gives each note's, as a share
// of what is written, by how far into the phrase it lies. Every phrase begins on
// its beat.
func (p *Playing) hurry(length func(share float64) float64) {
	targets := p.Score.Targets()
	for n := 0; n < len(targets); {
		end := phraseEnd(targets, n)
		if end-n >= fewestInRun {
			at := targets[n].StartBeat
			for k := n; k < end; k++ {
				beats := targets[k].Beats * music.Beats(length(float64(k-n)/float64(end-n-1)))
				p.target(k).StartBeat, p.target(k).Beats = at, beats
				at += beats
			}
		}
		n = end
	}
}
