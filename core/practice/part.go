package practice

import (
	"errors"
	"slices"

	"earlychorus/core/ear"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/core/task"
)

// Part is what a player practices of a step for themselves: some of its notes, or its
// fingers alone. Nothing of it is handed in.
type Part struct {
	Notes  []int `json:"notes,omitempty" doc:"indices of the targets, in order; none are all of them"`
	Silent bool  `json:"silent,omitempty" doc:"the fingers move to the click, without sound"`
}

// ErrNoPart reports a part that a step does not have.
var ErrNoPart = errors.New("practice: the step has no such note")

// alone is how long a note by itself is held at least.
const alone music.Beats = 4

// partBreath are the last beats of a part's count-in.
const partBreath music.Beats = 2

// PartOf narrows a step to a part of it: its count-in, the notes asked for one after the
// other as they stand in it, judged as the step is. Errors: ErrNoPart; an unknown
// instrument.
func PartOf(s scores.Score, p Part) (Worked, error) {
	i, err := instrument.Get(s.Instrument)
	if err != nil {
		return Worked{}, err
	}
	targets := s.Targets()
	if len(p.Notes) > 0 {
		if slices.Min(p.Notes) < 0 || slices.Max(p.Notes) >= len(targets) {
			return Worked{}, ErrNoPart
		}
		s = only(s, p.Notes)
	}
	if p.Silent {
		s = silent(s)
	}
	out := Worked{Score: s, Task: task.OfPart(s), Timeline: s.Timeline()}
	heard := ear.ForScore(i, s)
	out.Ear = EarRange{heard.Lowest, heard.Highest}
	return out, nil
}

// only keeps some notes of a score behind a count-in.
func only(s scores.Score, notes []int) scores.Score {
	targets := s.Targets()
	segments := []scores.Segment{
		{Phase: scores.Ready, Beats: scores.CountIn - partBreath, Text: "Fingers ready."},
		{
			Phase:     scores.Breathe,
			StartBeat: scores.CountIn - partBreath,
			Beats:     partBreath,
			Text:      "Breathe in.",
		},
	}
	at := scores.CountIn
	for n, k := range notes {
		seg := targets[k]
		if n == 0 && seg.Articulation == scores.Slurred {
			seg.Articulation = scores.Tongued // there is nothing to slur from
		}
		if len(notes) == 1 {
			seg.Beats = max(seg.Beats, alone)
		}
		seg.StartBeat = at
		at += seg.Beats
		segments = append(segments, seg)
	}
	s.Segments = append(segments, scores.Segment{
		Phase:     scores.Rest,
		StartBeat: at,
		Beats:     1,
		Text:      "Done.",
	})
	if len(notes) == 1 { // what a step asks of several notes cannot be asked of one
		s.Rules = measure.ToneRules(s.Limits)
	}
	s.Ladder, s.Rung, s.Growing = "", 0, false
	return plan.FillRests(s)
}

// silent has the fingers of a score move without sound.
func silent(s scores.Score) scores.Score {
	s.Segments = slices.Clone(s.Segments)
	for n := range s.Segments {
		seg := &s.Segments[n]
		if !seg.Phase.Sounds() {
			continue
		}
		seg.Phase, seg.Sounds, seg.Text = scores.Finger, false, "Finger "+seg.Called
	}
	s.Rules = []scores.Rule{}
	return s
}
