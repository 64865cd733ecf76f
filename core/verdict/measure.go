package verdict

import (
	"math"

	"earlychorus/core/ear"
	"earlychorus/core/scores"
)

// WholeStep stands for a note's index where a measure is of the whole step.
const WholeStep = -1

// Measure is one number of a take against its limit.
type Measure struct {
	Key    scores.MeasureKey `json:"key"`
	Cause  Cause             `json:"cause" doc:"what it comes from when it is outside"`
	Label  string            `json:"label" doc:"the measure's name on screen"`
	Note   int               `json:"note" doc:"index of the target; -1 for the whole step"`
	Value  float64           `json:"value"`
	Limit  float64           `json:"limit" doc:"in the measure's own unit; meaningless unless judged"`
	Text   string            `json:"text" doc:"the value in words: \"18 cents flat\""`
	Wanted string            `json:"wanted" doc:"the limit in words"`
	Judged bool              `json:"judged" doc:"false: shown, but not part of this step's pass rule"`
	Within bool              `json:"within"`
	Excess float64           `json:"excess" doc:"the value in limits: above 1 is outside"`
	Tried  bool              `json:"tried" doc:"on a hard note: counted as tried, not held against the player"`
	Trust  string            `json:"distrust,omitempty" doc:"why the number cannot be relied on"`

	direction int // -1 too low, too short, too early or down; 1 the other way
}

// measures returns every measure of the step's pass rule, and those that only
// inform.
func measures(c Case) []Measure {
	var out []Measure
	for _, r := range c.Score.Rules {
		for _, m := range book[r.Measure](c, r) {
			out = append(out, m.judged(r.Measure, c))
		}
	}
	if len(c.Score.Targets()) <= mostShown {
		out = append(out, shown(c)...)
	}
	return bounded(out)
}

// book is how each measure of a pass rule is taken. A nil slice is a measure
// that this take does not have.
var book = map[scores.MeasureKey]func(Case, scores.Rule) []Measure{
	scores.Speaks:      speaks,
	scores.RightNote:   rightNote,
	scores.NoBreak:     noBreak,
	scores.NoGap:       noGap,
	scores.Undertone:   undertone,
	scores.Centre:      centre,
	scores.Steadiness:  steadiness,
	scores.OwnCentre:   ownCentre,
	scores.Held:        held,
	scores.HoldTime:    holdTime,
	scores.Drift:       drift,
	scores.Response:    response,
	scores.Timing:      timing,
	scores.Scoop:       scoop,
	scores.Taper:       taper,
	scores.EndBend:     endBend,
	scores.Change:      change,
	scores.Landing:     landing,
	scores.Settle:      settle,
	scores.NoTongue:    noTongue,
	scores.Sung:        sung,
	scores.DeadSpot:    deadSpot,
	scores.Travel:      travel,
	scores.PulseRate:   pulseRate,
	scores.TempoDrift:  tempoDrift,
	scores.Evenness:    evenness,
	scores.SwellRange:  swellRange,
	scores.SwellOrder:  swellOrder,
	scores.PitchShift:  pitchShift,
	scores.Plateaus:    plateaus,
	scores.HighAbove:   highAbove,
	scores.AirBursts:   airBursts,
	scores.AirEven:     airEven,
	scores.AirLength:   airLength,
	scores.MeterDelay:  meterDelay,
	scores.MeterSteady: meterSteady,
	scores.TickedItems: ticked,
}

// judged completes a measure that an evaluator took.
func (m Measure) judged(key scores.MeasureKey, c Case) Measure {
	m.Key, m.Judged = key, true
	if m.Cause == "" {
		m.Cause = causeOf[key]
	}
	if m.Excess == 0 && m.Limit > 0 {
		m.Excess = math.Abs(m.Value) / m.Limit
	}
	m.Within = m.Excess <= 1
	if m.Note >= 0 {
		m.Tried = c.Score.Targets()[m.Note].Hard
	}
	return m
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
func bounded(all []Measure) []Measure {
	if len(all) <= mostMeasures {
		return all
	}
	nearest := map[scores.MeasureKey]int{}
	for n, m := range all {
		if best, ok := nearest[m.Key]; !ok || m.Excess > all[best].Excess {
			nearest[m.Key] = n
		}
	}
	var out []Measure
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

type playedNote struct {
	n      int
	target scores.Segment
	note   ear.Note
}

// wrong reports whether another note sounded. In the first weeks a pitch far off
// is still the right note while no other partial is nearer.
func (c Case) wrong(n int) bool {
	note := c.Analysis.Notes[n]
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
	return false
}

func eventsOf(a ear.Analysis, note int) (out []ear.Event) {
	for _, e := range a.Events {
		if e.Note == note {
			out = append(out, e)
		}
	}
	return out
}

// CanJudge reports whether a measure of a pass rule can be taken, and has a
// cause to name when it is outside.
func CanJudge(key scores.MeasureKey) bool { return book[key] != nil && causeOf[key] != "" }
