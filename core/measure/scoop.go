package measure

import (
	"math"
	"slices"

	"earlychorus/core/ear"
	"earlychorus/core/music"
)

// Scoop is where the first moment of a note lies beside the rest of it.
var Scoop = Measure{
	Key:     "scoop",
	Unit:    "cents",
	Meaning: "the first 60 ms lie this near to the note's own centre, or it settles at once",
	Take:    scoop,
	Fault:   &scoops,
}

// CauseScoop names a start beside the pitch.
const CauseScoop Cause = "scoop"

// scoops is a start beside the pitch, and what helps.
var scoops = Fault{
	Cause: CauseScoop,
	Rank:  howItHolds + 3,
	Tips: []Advice{
		{
			Key:  "scoop-up",
			When: When{Direction: Low},
			Text: "The start slides up. Set the mouth for the note before the air goes, and hear it first.",
		},
		{
			Key:  "scoop-down",
			When: When{Direction: High},
			Text: "The start is pinched. Let the air begin the note and the tongue only touch lightly.",
		},
		{Key: "scoop", Text: "Begin on the pitch: mouth ready, note in your ear, then air."},
	},
}

// A start that settles at once slides unheard, unless it is far off: recorded players of
// timgm6mb-soundfont and csound-soundfont begin 25 to 48 cents off, for some 60 ms; a low
// note for some of its periods, and in a room that rings for longer.
const (
	atOnce        music.Seconds = 0.09
	atOncePeriods               = 6
	atOnceRinging               = 1.5
	unheards      float64       = 1.75 // limits
	unheardsRing  float64       = 2    // of a start that rings into the next moment: heard up to 53 cents off
)

// heardAtOnce is how long a start may slide unheard, and how many limits far.
func (c Case) heardAtOnce(p playedNote) (long music.Seconds, limits float64) {
	long = max(atOnce, atOncePeriods/music.Seconds(p.target.Target.Frequency(music.StandardA4)))
	if c.Analysis.Recording.Ring > hidesTongue {
		return long * atOnceRinging, unheardsRing
	}
	return long, unheards
}

func scoop(c Case, limit float64) []Reading {
	return tones(c, func(p playedNote) Reading {
		by := float64(p.note.Scoop)
		long, limits := c.heardAtOnce(p)
		if p.note.Settle < long && math.Abs(by) < limits*limit || c.comesOutOfAnother(p.note) {
			by = max(-limit, min(limit, by))
		}
		return Reading{
			Value: by,
			Limit: limit,
			Trust: p.note.Distrust.Pitch,
			Way:   sign(by),
		}
	})
}

// comesOutOf is how near the end of another sound a note begins that comes out of it.
const comesOutOf = 0.02 // seconds

// comesOutOfAnother reports whether the first moment of a note is heard with what somebody
// else plays, or a metronome does.
func (c Case) comesOutOfAnother(note ear.Note) bool {
	return note.Start == ear.BySlur && slices.ContainsFunc(c.Analysis.Sounds, func(s ear.Sound) bool {
		before := note.Onset - s.At - s.Duration
		return s.Note < 0 && math.Abs(float64(before)) < comesOutOf
	})
}
