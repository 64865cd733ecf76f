package outcome

import (
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/meter"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// Blown is what came of a step that is blown into an air meter.
type Blown struct {
	Trace   meter.Trace
	Blows   []meter.Blow
	Verdict verdict.Verdict
}

// OfBlowing reads a meter's trace and judges it. Errors: an unknown instrument.
func OfBlowing(trace meter.Trace, s scores.Score, tips verdict.Book) (Blown, error) {
	i, err := instrument.Get(s.Instrument)
	if err != nil {
		return Blown{}, err
	}
	out := Blown{Trace: trace, Blows: meter.Read(trace, s)}
	out.Verdict, err = verdict.Decide(verdict.Case{
		Case: measure.Case{Instrument: i, Score: s, Blows: out.Blows},
		Tips: tips,
	})
	return out, err
}
