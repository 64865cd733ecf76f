package measure

import (
	"math"
	"slices"

	"earlychorus/core/ear"
	"earlychorus/core/scores"
)

// LevelEnds is how far a note that should be even fades or grows, or how great a
// step its loudness makes.
var LevelEnds = Measure{
	Key:     "level-ends",
	Unit:    "dB",
	Meaning: "the loudness at the end lies within this of that at the start, without a sudden step",
	Take:    levelEnds,
	Fault:   &unevenLoudness,
	Also:    []*Fault{&loudnessSteps},
	Aside:   true,
}

// CauseFade names a note that fades or grows where it should be even.
const CauseFade Cause = "fade"

// unevenLoudness is a note that fades or grows, and what helps.
var unevenLoudness = Fault{
	Cause: CauseFade,
	Rank:  howLoud + 1,
	Tips: []Advice{
		{
			Key:  "fades",
			When: When{Direction: Low},
			Text: "Spend the air evenly: start with less, and keep some for the end.",
		},
		{
			Key:  "grows",
			When: When{Direction: High},
			Text: "Begin with the air you mean to end with. Use {even}.",
		},
		{Key: "fade", Text: "Use {even}, from the first beat to the last."},
	},
}

// CauseStep names a note whose loudness makes a step.
const CauseStep Cause = "loudness-step"

// loudnessSteps is a sudden change of loudness, and what helps.
var loudnessSteps = Fault{
	Cause: CauseStep,
	Rank:  howLoud + 5,
	Tips: []Advice{
		{Key: "loudness-step", Text: "One breath, one stream: no push and no letting go in the middle of the note."},
	},
}

// leastStep is below what no step is heard: a room's standing waves make as much.
const leastStep = 5. // dB

// levelEnds leaves out notes that are asked to change their loudness.
func levelEnds(c Case, limit float64) []Reading {
	all := endToEnd(c, limit, func(l scores.Limits) float64 { return float64(l.Level) },
		func(p playedNote) (float64, ear.Doubt) {
			return float64(p.note.Grows), p.note.Distrust.Level
		})
	for n := range all {
		step := float64(c.Analysis.Notes[all[n].Note].Step)
		if by := math.Abs(step); by > math.Abs(all[n].Value) && by > max(leastStep, all[n].Limit) {
			all[n].Value, all[n].Excess, all[n].Way, all[n].Cause = step, by/all[n].Limit, sign(step), CauseStep
		}
	}
	targets := c.Score.Targets()
	return slices.DeleteFunc(all, func(r Reading) bool {
		return targets[r.Note].DynamicTo != "" || targets[r.Note].Pulses > 0
	})
}
