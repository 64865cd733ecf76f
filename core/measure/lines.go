package measure

import "earlychorus/core/scores"

// Lines is whether every way of an excerpt was done: on air, on the buzz, on the
// instrument.
var Lines = Measure{
	Key:     "lines",
	Meaning: "every line is done as asked: on air, on the buzz, on the instrument",
	Take:    lines,
	Fault:   &lineMissing,
}

// CauseLine names a line that was left out.
const CauseLine Cause = "line"

// lineMissing is a line that was left out, and what helps.
var lineMissing = Fault{
	Cause: CauseLine,
	Rank:  whetherItSounds + 8,
	Tips: []Advice{
		{Key: "line", Text: "Do every line: air first, then lips, then the instrument. Each makes the next one easy."},
	},
}

// lines names the first phase that was left out, by its code in the reading's
// value: 1 air, 2 buzz, 3 the instrument.
func lines(c Case, _ float64) []Reading {
	m := Reading{
		Excess: perfect,
		Way:    Low,
	}
	for n, phase := range []scores.Phase{scores.Out, scores.Buzz, scores.Play} {
		if asked, done := c.done(phase); asked && !done {
			m.Value, m.Excess = float64(n+1), hopeless
			break
		}
	}
	return whole(m)
}

// lineMissing reports whether a line was asked for and left out.
func (c Case) lineMissing(phase scores.Phase) bool {
	if !c.Asks(Lines) {
		return false
	}
	asked, done := c.done(phase)
	return asked && !done
}

// done reports whether a phase is asked for, and whether anything of it was heard.
func (c Case) done(phase scores.Phase) (asked, done bool) {
	for n, t := range c.Score.Targets() {
		if t.Phase == phase {
			asked = true
			done = done || c.Analysis.Notes[n].Played
		}
	}
	for _, a := range c.Analysis.Airs {
		if phase == scores.Out {
			asked = true
			done = done || a.Heard
		}
	}
	return asked, done
}
