package measure

import (
	"math"

	"earlychorus/core/ear"
	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/meter"
	"earlychorus/core/scores"
)

// Case is a take that is measured.
type Case struct {
	Instrument instrument.Instrument
	Score      scores.Score
	Analysis   ear.Analysis // of a recorded step, made with the same score
	Blows      []meter.Blow // of a step blown into a meter
	Ticked     []bool       // of a step that is ticked: which of its items are done
	FreeStart  bool         // the recording was not made to our click
}

// Asks reports whether the step is judged by a measure.
func (c Case) Asks(m Measure) bool { return c.asks(m.Key) }

func (c Case) asks(key scores.MeasureKey) bool {
	for _, r := range c.Score.Rules {
		if r.Measure == key {
			return true
		}
	}
	return false
}

// played lists the targets that sounded at their own note, of the phases given,
// for measures that need one.
func (c Case) played(phases ...scores.Phase) (out []playedNote) {
	for n, target := range c.Score.Targets() {
		note := c.Analysis.Notes[n]
		for _, p := range phases {
			if target.Phase == p && note.Played && !c.wrong(n) {
				out = append(out, playedNote{n, target, note})
			}
		}
	}
	return out
}

// account is what became of a target. An analysis of an older version has none: it
// is read from the note.
func (c Case) account(n int) explain.Account {
	if n < len(c.Analysis.Accounts) {
		return c.Analysis.Accounts[n]
	}
	note := c.Analysis.Notes[n]
	switch {
	case !note.Played:
		return explain.Account{Kind: explain.NeverCame}
	case note.WrongNote:
		return explain.Account{Kind: explain.OtherNote, Came: note.MIDI}
	}
	return explain.Account{Kind: explain.Played, Came: note.MIDI}
}

// wrong reports whether another note sounded. In the first weeks a pitch far off
// is still the right note while no other partial is nearer.
func (c Case) wrong(n int) bool {
	note, a := c.Analysis.Notes[n], c.account(n)
	if a.Kind == explain.HeldOver {
		return true
	}
	if !note.WrongNote || note.Phase == scores.Sing {
		return false
	}
	if c.Score.Stage > 1 {
		return true
	}
	off := math.Abs(float64(note.Centre))
	for _, p := range c.Instrument.Partials(note.Target) {
		if p.Note != note.Target && math.Abs(float64(note.Centre)-100*float64(p.Note-note.Target)) < off {
			return true
		}
	}
	if a.Kind != explain.OtherFingering {
		return true
	}
	// A finger's note lies where notes lie; lips that are still weak lie anywhere.
	return math.Abs(off-100*math.Round(off/100)) < nearFinger
}

// nearFinger is how near to a note, in cents, another finger's lies.
const nearFinger = 28

func eventsOf(a ear.Analysis, note int) (out []ear.Event) {
	for _, e := range a.Events {
		if e.Note == note {
			out = append(out, e)
		}
	}
	return out
}

type playedNote struct {
	n      int // index of the target
	target scores.Segment
	note   ear.Note
}
