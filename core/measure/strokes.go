package measure

import "math"

// Strokes is whether every stroke came, and none beside.
var Strokes = Measure{
	Key:     "strokes",
	Meaning: "every stroke comes, and none beside",
	Take:    strokes,
	Fault:   &wrongStrokes,
}

// CauseStrokes names strokes that are missing or too many.
const CauseStrokes Cause = "strokes"

// wrongStrokes is strokes that are missing or too many, and what helps.
var wrongStrokes = Fault{
	Cause: CauseStrokes,
	Rank:  whetherItSounds + 10,
	Tips: []Advice{
		{
			Key:  "strokes-few",
			When: When{Direction: Low},
			Text: "Say the rhythm out loud as you strike. Count through the rests.",
		},
		{
			Key:  "strokes-many",
			When: When{Direction: High},
			Text: "Let the stick come back up and stay there until the next stroke.",
		},
		{Key: "strokes", Text: "Count aloud first, then strike only where you say it."},
	},
}

func strokes(c Case, _ float64) []Reading {
	missing, first := 0, 0
	for n, s := range c.Analysis.Strokes {
		if !s.Heard {
			if missing == 0 {
				first = n + 1
			}
			missing++
		}
	}
	m := Reading{
		Value:  float64(len(c.Analysis.Strokes) - missing),
		Of:     float64(len(c.Analysis.Strokes)),
		Count:  first,
		Excess: countOf(missing + c.Analysis.Extra),
		Way:    Low,
	}
	if missing == 0 && c.Analysis.Extra > 0 {
		m.Way, m.Value = High, m.Of+float64(c.Analysis.Extra)
	}
	return whole(m)
}

// StrokeTiming is how near to its beat every stroke comes.
var StrokeTiming = Measure{
	Key:     "stroke-timing",
	Unit:    "s",
	Meaning: "every stroke comes within this of its beat",
	Take:    strokeTiming,
	Fault:   &strokeOff,
}

// CauseStrokeTiming names strokes beside the beat.
const CauseStrokeTiming Cause = "stroke-timing"

// strokeOff is strokes beside the beat, and what helps.
var strokeOff = Fault{
	Cause: CauseStrokeTiming,
	Rank:  whenItComes + 8,
	Tips: []Advice{
		{
			Key:  "stroke-early",
			When: When{Direction: Low},
			Text: "You come before the beat. Breathe with the count, and let the stick fall on the click.",
		},
		{
			Key:  "stroke-late",
			When: When{Direction: High},
			Text: "You come after the beat. Lift on the half beat, so that the stick is down on the click.",
		},
		{Key: "stroke-timing", Text: "Tap your foot, say the rhythm, then strike it softly with the click."},
	},
}

// strokeTiming reads the stroke farthest from its beat.
func strokeTiming(c Case, limit float64) []Reading {
	var out []Reading
	for n, s := range c.Analysis.Strokes {
		if !s.Heard {
			continue
		}
		m := Reading{
			Value:  float64(s.Off),
			Limit:  limit,
			Count:  n + 1,
			Excess: max(perfect, math.Abs(float64(s.Off))/limit),
			Way:    sign(float64(s.Off)),
		}
		if len(out) == 0 || m.Excess > out[0].Excess {
			out = whole(m)
		}
	}
	return out
}
