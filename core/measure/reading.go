package measure

import (
	"math"
	"slices"

	"earlychorus/core/ear"
	"earlychorus/core/explain"

	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// WholeStep stands for a note's index where a reading is of the whole step.
const WholeStep = -1

// Reading is one number of a take against its limit: keys and numbers alone. Its
// words are made where it is shown (core/say).
type Reading struct {
	Key    scores.MeasureKey `json:"key"`
	Cause  Cause             `json:"cause" doc:"what it comes from when it is outside"`
	Note   int               `json:"note" doc:"index of the target; -1 for the whole step"`
	Target music.MIDI        `json:"target_midi,omitempty" doc:"the note asked for there"`
	Value  float64           `json:"value"`
	Limit  float64           `json:"limit" doc:"in the measure's own unit; meaningless unless judged"`
	Of     float64           `json:"of,omitempty" doc:"what the value is out of, where it is: beats asked for, bursts wanted"`
	Count  int               `json:"count,omitempty" doc:"how many there were, or which one, where the measure counts"`
	Absent bool              `json:"absent,omitempty" doc:"there was nothing to measure"`
	Judged bool              `json:"judged" doc:"false: shown, but not part of this step's pass rule"`
	Within bool              `json:"within"`
	Excess float64           `json:"excess" doc:"the value in limits: above 1 is outside"`
	Tried  bool              `json:"tried" doc:"on a hard note: counted as tried, not held against the player"`
	Trust  ear.Doubt         `json:"distrust,omitempty" doc:"why the number cannot be relied on"`
	Side   string            `json:"side,omitempty" enum:"left,right" doc:"which little finger began the runs it is about"`
	Way    int               `json:"way,omitempty" doc:"-1 too low, short, soft or early; 1 the other way"`

	// The words of readings from before version 3 of verdicts, which kept less in numbers.
	OldLabel  string `json:"label,omitempty"`
	OldText   string `json:"text,omitempty"`
	OldWanted string `json:"wanted,omitempty"`

	Account explain.Kind `json:"account,omitempty" doc:"what became of the note, where that is what was measured"`
	Came    music.MIDI   `json:"came_midi,omitempty" doc:"the note that came instead"`
}

// Readings takes every measure of the step's pass rule, and those that only
// inform. Errors: UnknownError.
func (c Case) Readings() ([]Reading, error) {
	var out []Reading
	for _, r := range c.Score.Rules {
		m, err := Get(r.Measure)
		if err != nil {
			return nil, err
		}
		for _, reading := range m.Take(c, r.Limit) {
			if m.Aside && reading.Trust != "" {
				continue
			}
			out = append(out, reading.judged(m, c))
		}
	}
	if len(c.Score.Targets()) <= mostShown {
		out = append(out, c.informing()...)
	}
	return bounded(out), nil
}

// judged completes a reading that a measure took.
func (r Reading) judged(m *Measure, c Case) Reading {
	r.Key, r.Judged = m.Key, true
	if r.Cause == "" {
		r.Cause = m.Fault.Cause
	}
	if r.Excess == 0 && r.Limit > 0 {
		r.Excess = math.Abs(r.Value) / r.Limit
	}
	r.Within = r.Excess <= 1
	if r.Note >= 0 {
		t := c.Score.Targets()[r.Note]
		r.Tried, r.Target = t.Hard, t.Target
	}
	return r
}

// informing reads the played notes by the measures that inform without being
// judged in this step, note by note.
func (c Case) informing() []Reading {
	var out []Reading
	targets := c.Score.Targets()
	for _, m := range all {
		if !m.Informs || c.asks(m.Key) {
			continue
		}
		for _, r := range m.Take(c, 0) {
			if targets[r.Note].Phase == scores.Play {
				out = append(out, Reading{
					Key:    m.Key,
					Target: targets[r.Note].Target,
					Note:   r.Note,
					Value:  r.Value,
					Within: true,
				})
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Reading) int { return a.Note - b.Note })
	return out
}

// Excesses that are not a plain value over its limit.
const (
	perfect  = 0.01 // inside, with nothing to measure
	hopeless = 10   // the thing itself is not there
)

// atLeast is the excess of a value that should reach a limit.
func atLeast(value, limit float64) float64 {
	if value <= 0 {
		return hopeless
	}
	return limit / value
}

// countOf is the excess of things that should not be there at all: one of them
// is nearly.
func countOf(n int) float64 {
	if n == 0 {
		return perfect
	}
	return 1 + float64(n)/2
}

// touched is the excess of a length that is a fault as soon as it is there: a
// limit just touched is over it.
func touched(length, limit float64) float64 {
	if length == 0 {
		return perfect
	}
	return max(1.01, length/limit)
}

// bounded keeps a long step's measures few: all that are outside, and of each
// kind the nearest to its limit.
func bounded(all []Reading) []Reading {
	if len(all) <= mostMeasures {
		return all
	}
	nearest := map[scores.MeasureKey]int{}
	for n, m := range all {
		if best, ok := nearest[m.Key]; !ok || m.Excess > all[best].Excess {
			nearest[m.Key] = n
		}
	}
	var out []Reading
	for n, m := range all {
		if m.Judged && !m.Within && len(out) < mostMeasures || nearest[m.Key] == n {
			out = append(out, m)
		}
	}
	return out
}

const (
	mostMeasures = 60
	mostShown    = 6 // targets for which measures that only inform are kept
)
