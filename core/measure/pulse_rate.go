package measure

import (
	"math"

	"earlychorus/core/dsp"
	"earlychorus/core/scores"
)

// PulseRate is how fast the pushes of air under a tone come.
var PulseRate = Measure{
	Key:     "pulse-rate",
	Unit:    "share",
	Meaning: "the pulses' rate is off by at most this",
	Take:    pulseRate,
	Fault:   &wrongPulse,
}

// CausePulse names pushes of air at another rate.
const CausePulse Cause = "pulse"

// wrongPulse is pushes of air at another rate, and what helps.
var wrongPulse = Fault{
	Cause: CausePulse,
	Rank:  howLoud + 4,
	Tips: []Advice{
		{
			Key:  "pulse-slow",
			When: When{Direction: Low},
			Text: "Too few pushes. Say \"hoo-hoo-hoo\" with the click first, then put it into the note.",
		},
		{
			Key:  "pulse-fast",
			When: When{Direction: High},
			Text: "Too many pushes. Count them aloud with the click first.",
		},
		{Key: "pulse", Text: "Push from below, not from the throat, and never let the air turn back."},
	},
}

// pulseRate reads every note. In a room that rings, one note's pushes may be lost in how it
// sways: there the middle of all tells.
func pulseRate(c Case, limit float64) []Reading {
	out := pulses(c, limit)
	if c.Analysis.Recording.Ring <= hidesTongue || len(out) < fewestPulsed {
		return out
	}
	var values []float64
	for _, r := range out {
		values = append(values, r.Value)
	}
	if middle := dsp.Median(values); math.Abs(middle) <= limit {
		for n := range out {
			if math.Abs(out[n].Value) > limit {
				out[n].Value, out[n].Way = middle, sign(middle)
			}
			out[n].Absent, out[n].Excess = false, 0
		}
	}
	return out
}

// fewestPulsed is how many notes have a middle.
const fewestPulsed = 3

func pulses(c Case, limit float64) []Reading {
	var out []Reading
	for _, p := range c.played(scores.Play) {
		if p.note.Pulse == nil {
			continue
		}
		off := p.note.Pulse.Rate/p.note.Pulse.Asked - 1
		m := Reading{
			Note:  p.n,
			Value: off,
			Of:    p.note.Pulse.Asked,
			Limit: limit,
			Trust: p.note.Distrust.Level,
			Way:   sign(off),
		}
		if p.note.Pulse.Rate == 0 {
			m.Absent, m.Excess, m.Way = true, hopeless, Low
		}
		out = append(out, m)
	}
	return out
}
