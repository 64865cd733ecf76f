package measure

import (
	"math"

	"earlychorus/core/scores"
)

// Response is how long after its beat a note speaks.
var Response = Measure{
	Key:     "response",
	Unit:    "s",
	Meaning: "the note speaks within this of its beat",
	Take:    response,
	Fault:   &late,
	Informs: true,
}

// CauseLate names a note that speaks early or late.
const CauseLate Cause = "late"

// late is a note that speaks early or late, and what helps.
var late = Fault{
	Cause: CauseLate,
	Rank:  whenItComes + 2,
	Tips: []Advice{
		{
			Key:  "early",
			When: When{Direction: Low},
			Text: "You start before the beat. Breathe in one beat before. Blow on the click.",
		},
		{
			Key:  "late-buzz",
			When: When{Chapter: scores.Buzzing, Direction: High},
			Text: "The buzz comes late. Lips nearly touching, corners firm, and the air all at once.",
		},
		{
			Key:  "late",
			When: When{Direction: High},
			Text: "It speaks late. Have your breath ready. Let the air go on the click.",
		},
		{Key: "start", Text: "Breathe in time: in on the beat before, out on the click."},
	},
}

// response is not measured in a recording made without our click.
func response(c Case, limit float64) []Reading {
	if c.FreeStart {
		return nil
	}
	out := beatsOf(c, limit, tones)
	for n := range out {
		if r := &out[n]; r.Value < 0 && c.comesOutOfAnother(c.Analysis.Notes[r.Note]) {
			r.Value, r.Excess, r.Way = 0, min(r.Excess, perfect), 0 // somebody else's beginning
		}
	}
	if limit > 0 && c.Asks(Pace) {
		c.withoutPace(out)
	}
	return out
}

// withoutPace measures a note inside a phrase from where the note before it came: who drags
// or hurries comes off the beat more and more, and that is told of the pace.
func (c Case) withoutPace(out []Reading) {
	targets := c.Score.Targets()
	for n := range out {
		r := &out[n]
		if !scores.Follows(targets, r.Note) || !c.Analysis.Notes[r.Note-1].Played {
			continue
		}
		own := r.Value - float64(c.Analysis.Notes[r.Note-1].Response)
		if math.Abs(own) < math.Abs(r.Value) {
			r.Value, r.Way = own, sign(own)
		}
	}
}
