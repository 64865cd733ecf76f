package measure

import (
	"earlychorus/core/ear"
	"earlychorus/core/scores"
)

// NoTongue is whether the tongue stays out of a slur.
var NoTongue = Measure{
	Key:     "tongue",
	Meaning: "the tongue does not touch a slur",
	Take:    noTongue,
	Fault:   &tonguedSlur,
}

// CauseTongue names a slur that is tongued.
const CauseTongue Cause = "tongue"

// tonguedSlur is a slur that is tongued, and what helps.
var tonguedSlur = Fault{
	Cause: CauseTongue,
	Rank:  whenItComes + 6,
	Tips: []Advice{
		{Key: "tongue", Text: "The tongue touched in the slur. Say \"tah-ah-ah\": one \"t\" for the whole line."},
	},
}

// noTongue is not judged in a room that rings longer than hidesTongue: its echoes dip
// where one note gives way to the next.
func noTongue(c Case, _ float64) (out []Reading) {
	if c.Analysis.Recording.Ring > hidesTongue {
		return nil
	}
	for _, p := range c.played(scores.Play, scores.Buzz) {
		if p.target.Articulation != scores.Slurred {
			continue
		}
		touches := 0
		if p.note.Start == ear.ByTongue || p.note.Start == ear.AfterSilence {
			touches++
		}
		for _, e := range eventsOf(c.Analysis, p.n) {
			if e.Kind == ear.Tongue && !c.clicksAt(e.At) && !c.clickDueAt(e.At) {
				touches++
			}
		}
		m := Reading{
			Note:   p.n,
			Value:  float64(touches),
			Excess: countOf(touches),
			Way:    1,
		}
		out = append(out, m)
	}
	return out
}
