package measure

import (
	"earlychorus/core/dsp"
	"earlychorus/core/ear"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Joins is whether a line is tongued or slurred as asked, all in all. A single touch of
// the tongue is NoTongue's matter.
var Joins = Measure{
	Key:     "joins",
	Meaning: "the notes of a line are tongued, or slurred, as asked",
	Take:    joins,
	Fault:   &slurredInstead,
	Also:    []*Fault{&tonguedSlur},
	Aside:   true,
}

// CauseSlurred names a line that is slurred where it should be tongued.
const CauseSlurred Cause = "slurred"

// slurredInstead is a line that is slurred, and what helps.
var slurredInstead = Fault{
	Cause: CauseSlurred,
	Rank:  whenItComes + 7,
	Tips: []Advice{
		{Key: "slurred", Text: "Say \"too\" for each note: the air keeps going, and the tongue parts them."},
	},
}

// How far the loudness dips from note to note, in dB, in the middle of a line: tongued
// lines by more, slurred ones by less (own lessons). A room that rings longer than hidesSome
// fills the tongue's dips; one that rings longer than hidesTongue hides them, and lines are not
// judged there, nor where noise covers the ring.
const (
	tonguedDips = 9.
	slurredDips = 14.
	plainTongue = 40.
	ringingDips = 6.
	hidesSome   = music.Seconds(0.35)
	hidesTongue = music.Seconds(0.45)
)

// mostClicked is in how many joins one may have a metronome's click over it, which fills what
// the tongue parts.
const mostClicked = 3

// FewestJoins are as many changes of note as make a line.
const FewestJoins = 4

func joins(c Case, _ float64) []Reading {
	ring, tongued := c.Analysis.Recording.Ring, tonguedDips
	if ring == 0 || ring > hidesTongue {
		return nil
	}
	if ring > hidesSome {
		tongued = ringingDips
	}
	targets := c.Score.Targets()
	dips := map[bool][]float64{} // by whether they are to be slurred
	clicked := map[bool]int{}
	for _, p := range c.played(scores.Play) {
		if !scores.Follows(targets, p.n) || p.target.Target == targets[p.n-1].Target {
			continue
		}
		slurs := p.target.Articulation == scores.Slurred
		dip := float64(p.note.Dip)
		if p.note.Start != ear.BySlur {
			dip = plainTongue
		}
		dips[slurs] = append(dips[slurs], dip)
		if c.clicksAt(p.note.Onset) {
			clicked[slurs]++
		}
	}
	out := []Reading{}
	for _, slurs := range []bool{false, true} {
		if len(dips[slurs]) < FewestJoins {
			continue
		}
		r := Reading{Value: dsp.Median(dips[slurs])}
		switch {
		case slurs && r.Value > slurredDips:
			r.Way, r.Cause = High, CauseTongue
		case !slurs && r.Value < tongued && mostClicked*clicked[slurs] < len(dips[slurs]):
			r.Way = Low
		}
		r.Excess = countOf(r.Way * r.Way)
		out = append(out, whole(r)...)
	}
	return out
}
