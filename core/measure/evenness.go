package measure

import (
	"math"
	"slices"
)

// Evenness is how much the lengths of the notes differ.
var Evenness = Measure{
	Key:     "evenness",
	Unit:    "share",
	Meaning: "the notes' lengths spread by at most this",
	Take:    evenness,
	Fault:   &unevenLengths,
}

// CauseEvenness names lengths that differ.
const CauseEvenness Cause = "evenness"

// unevenLengths is lengths that differ, and what helps.
var unevenLengths = Fault{
	Cause: CauseEvenness,
	Rank:  whenItComes + 5,
	Tips: []Advice{
		{
			Key:  "evenness",
			Text: "Some notes are shorter. Make the short ones long for one turn. Then play it even.",
		},
		{
			Key:  "evenness-slow",
			Text: "Slow down until every note has the same room. Then come up two clicks at a time.",
		},
	},
}

// evenness is the spread of the notes' lengths. Runs that begin with the left little
// finger and those that begin with the right are told apart, so that the weaker side
// shows.
func evenness(c Case, limit float64) (out []Reading) {
	ratios, sides, blur := map[string][]float64{}, []string{}, 0.
	for _, r := range runs(c) {
		if !slices.Contains(sides, r.side) {
			sides = append(sides, r.side)
		}
		ratios[r.side] = append(ratios[r.side], r.ratio...)
		if c.Analysis.Recording.Ring > hidesTongue {
			blur = max(blur, hallBlurs/r.asked)
		}
	}
	for _, side := range sides {
		spread := math.Sqrt(max(0, math.Pow(spreadOf(ratios[side]), 2)-blur*blur))
		out = append(out, Reading{
			Note:   WholeStep,
			Value:  spread,
			Limit:  limit,
			Excess: max(perfect, spread/limit),
			Side:   side,
			Way:    1,
		})
	}
	return out
}

// hallBlurs is how far off it is known when one note gives way to the next, in seconds, where
// the room rings longer than hidesTongue (own lessons).
const hallBlurs = 0.065

// spreadOf is the standard deviation of lengths, as a share of their mean.
func spreadOf(ratio []float64) float64 {
	var mean, squares float64
	for _, x := range ratio {
		mean += x / float64(len(ratio))
	}
	for _, x := range ratio {
		squares += (x - mean) * (x - mean) / float64(len(ratio))
	}
	return math.Sqrt(squares) / mean
}
