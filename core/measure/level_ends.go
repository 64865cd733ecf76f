package measure

import (
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

// levelEnds leaves out notes that are asked to change their loudness.
func levelEnds(c Case, limit float64) []Reading {
	all := endToEnd(c, limit, func(l scores.Limits) float64 { return float64(l.Level) },
		func(p playedNote) (float64, ear.Doubt) {
			return float64(p.note.LevelTo - p.note.LevelFrom), p.note.Distrust.Level
		})
	targets := c.Score.Targets()
	return slices.DeleteFunc(all, func(r Reading) bool {
		return targets[r.Note].DynamicTo != "" || targets[r.Note].Pulses > 0
	})
}
