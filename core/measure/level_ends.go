package measure

import (
	"fmt"
	"math"

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

func levelEnds(c Case, limit float64) (out []Reading) {
	for _, p := range c.played(scores.Play, scores.Buzz) {
		if p.note.Release-p.note.Onset < longEnough || p.target.DynamicTo != "" || p.target.Pulses > 0 {
			continue
		}
		limit := easier(c, p, limit, func(l scores.Limits) float64 { return float64(l.Level) })
		by := float64(p.note.LevelTo - p.note.LevelFrom)
		out = append(out, Reading{
			Note:   p.n,
			Value:  by,
			Limit:  limit,
			Excess: max(perfect, math.Abs(by)/limit),
			Trust:  p.note.Distrust.Level,
			Way:    sign(by),
		})
	}
	return out
}

func fadesOrGrows(db float64) string {
	switch {
	case db <= -1:
		return fmt.Sprintf("faded by %.0f dB", -db)
	case db >= 1:
		return fmt.Sprintf("grew by %.0f dB", db)
	}
	return "stays even"
}
