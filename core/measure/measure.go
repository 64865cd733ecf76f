// Package measure is everything a take is measured by: a file a measure, each
// with its key, its unit, what it means, how it is taken, and the fault that
// speaks from it with what helps. The glossary, the tips, the order in which
// faults are mended and the rules of every kind of exercise read the list below.
package measure

import (
	"earlychorus/core/fmt"
	"earlychorus/core/scores"
)

// Measure is one thing that a take can be measured by.
type Measure struct {
	Key     scores.MeasureKey
	Unit    string // of its limit; "" counts, or has none
	Meaning string // the limit in a director's words
	// Take measures a take against a limit, in Unit: a reading for each note it
	// can be taken of, one with Note WholeStep for the step, none where the take
	// does not have it.
	Take func(c Case, limit float64) []Reading
	// Fault is what a reading outside the limit comes from; nil informs only.
	Fault *Fault
	// Also are faults that a reading may name instead.
	Also []*Fault
	// Aside is left out where it cannot be relied on: the take is judged without it.
	Aside bool
	// Informs shows the readings of played notes also in steps that are not
	// judged by them.
	Informs bool
}

// all lists the measures in the order the glossary has them. A new measure is a
// file of its own and a line here.
var all = []*Measure{
	&Speaks,
	&RightNote,
	&NoBreak,
	&NoChirp,
	&NoGap,
	&Centre,
	&Steadiness,
	&Held,
	&HoldTime,
	&Drift,
	&PitchEnds,
	&Level,
	&LevelEnds,
	&Response,
	&Scoop,
	&Begins,
	&Taper,
	&EndBend,
	&Change,
	&Landing,
	&Settle,
	&Timing,
	&Pace,
	&TempoDrift,
	&Evenness,
	&NoTongue,
	&Joins,
	&Contrast,
	&SwellRange,
	&SwellOrder,
	&PitchShift,
	&DeadSpot,
	&Travel,
	&Plateaus,
	&HighAbove,
	&OwnCentre,
	&Undertone,
	&PulseRate,
	&Sung,
	&Lines,
	&Strokes,
	&StrokeTiming,
	&AirBursts,
	&AirEven,
	&AirLength,
	&MeterDelay,
	&MeterSteady,
	&TickedItems,
}

// All lists the measures.
func All() []*Measure { return append([]*Measure(nil), all...) }

// An UnknownError reports a pass rule that names no measure of this program,
// such as one that a newer version wrote.
type UnknownError struct{ Key scores.MeasureKey }

func (e UnknownError) Error() string {
	return fmt.Sprintf("measure: a step cannot be judged by %q: this version does not know it", string(e.Key))
}

// Get returns the measure with a key that a step may be judged by, or an
// UnknownError.
func Get(key scores.MeasureKey) (*Measure, error) {
	for _, m := range all {
		if m.Key == key && m.Fault != nil {
			return m, nil
		}
	}
	return nil, UnknownError{key}
}

// Within is the pass rule that keeps the measure within a limit, in its unit.
func (m Measure) Within(limit float64) scores.Rule { return scores.Rule{Measure: m.Key, Limit: limit} }

// ToneRules are what held tones are judged by: the rules of a score written by
// hand that brings none.
func ToneRules(l scores.Limits) []scores.Rule {
	return []scores.Rule{
		Speaks.Within(0),
		RightNote.Within(0),
		NoBreak.Within(float64(l.Break)),
		NoChirp.Within(0),
		NoGap.Within(float64(l.Gap)),
		Centre.Within(float64(l.Centre)),
		PitchEnds.Within(float64(l.Drift)),
		Steadiness.Within(float64(l.Waver)),
		Held.Within(l.HeldRatio),
		LevelEnds.Within(float64(l.Level)),
		Response.Within(float64(l.Start)),
	}
}
