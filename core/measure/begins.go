package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// Begins is whether a note starts as asked: with the tongue, or with the breath alone.
var Begins = Measure{
	Key:     "begins",
	Meaning: "notes begin as asked, with the tongue or with the breath alone",
	Take:    begins,
	Fault:   &otherStart,
	Aside:   true,
}

// CauseBegins names a start of the other kind.
const CauseBegins Cause = "begins"

// otherStart is a start of the other kind, and what helps.
var otherStart = Fault{
	Cause: CauseBegins,
	Rank:  howItHolds + 6,
	Tips: []Advice{
		{
			Key:  "begins-tongue",
			When: When{Direction: Low},
			Text: "Let the tongue begin it: a light \"too\" at the tip, with the air already there.",
		},
		{
			Key:  "begins-breath",
			When: When{Direction: High},
			Text: "No tongue here: let the breath begin it, as if you said \"hoo\".",
		},
		{Key: "begins", Text: "Begin each note the way the sheet asks: with the tongue, or with the breath alone."},
	},
}

// A tongued start is at half its loudness within softStart, one of the breath takes
// longer than hardStart: what lies between could be either. Recorded players' tongued
// starts take up to 34 ms in a dry room and 72 in one that rings (timgm6mb-soundfont and
// csound-soundfont).
const (
	softStart music.Seconds = 0.075
	hardStart music.Seconds = 0.032
)

// aroundStart is how long before a note's start somebody who talks hides how it begins, in
// seconds; a click that lies so near makes any start quick.
const (
	aroundStart = 0.3
	onTheClick  = 0.06
	aSyllable   = 0.4 // at most, also where it is level
)

// doubtOfStart is why the start of a note cannot be relied on: somebody talks into it, or
// something else starts with it that makes it quick.
func (c Case) doubtOfStart(p playedNote, quick bool) ear.Doubt {
	for _, s := range c.Analysis.Sounds {
		before := p.note.Onset - s.At - s.Duration
		covers := s.At+s.Duration > p.note.Onset
		talks := s.Kind == ear.Voice || (quick || covers) && s.Kind == ear.OtherSound ||
			s.Kind == ear.OtherPlayer && s.Note < 0 && s.Duration < aSyllable
		if talks && s.At < p.note.Onset+softStart && before < aroundStart ||
			quick && s.Kind == ear.Click && s.At < p.note.Onset+softStart && before < onTheClick {
			return ear.WithAnother
		}
	}
	return p.note.Distrust.Level
}

func begins(c Case, _ float64) (out []Reading) {
	for _, p := range c.played(scores.Play) {
		if p.note.Start != ear.AfterSilence {
			continue
		}
		way := 0
		switch rise := p.note.Rise; {
		case p.target.Articulation == scores.Tongued && rise > softStart:
			way = Low
		case p.target.Articulation == scores.BreathStart && rise > 0 && rise < hardStart:
			way = High
		}
		out = append(out, Reading{
			Note:   p.n,
			Value:  float64(p.note.Rise),
			Excess: countOf(way * way),
			Trust:  c.doubtOfStart(p, way == High),
			Way:    way,
		})
	}
	return out
}
