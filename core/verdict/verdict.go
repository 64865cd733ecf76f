// Package verdict decides what a take was worth: clean, nearly, not yet or
// can't tell, which measure decided it, and one tip.
package verdict

import (
	"cmp"
	"slices"

	"earlychorus/core/ear"
	"earlychorus/core/fmt"
	"earlychorus/core/measure"
)

// Result is a take's worth.
type Result string

const (
	Clean    Result = "clean"
	Nearly   Result = "nearly"
	NotYet   Result = "not-yet"
	CantTell Result = "cant-tell"
)

// byWorth lists the results, the nearest to clean first.
var byWorth = []Result{Clean, Nearly, NotYet, CantTell}

// Better returns the one of two results that is nearer to clean; no result is
// worse than any.
func Better(a, b Result) Result {
	switch {
	case a == "":
		return b
	case b == "" || slices.Index(byWorth, a) <= slices.Index(byWorth, b):
		return a
	}
	return b
}

// Version names the rules; verdicts keep the version they were given under.
const Version = 3

// Verdict is what one take was worth: keys and numbers, of which core/say makes the
// words where they are shown.
type Verdict struct {
	Version  int               `json:"version"`
	Result   Result            `json:"result" enum:"clean,nearly,not-yet,cant-tell"`
	Ungraded bool              `json:"ungraded,omitempty" doc:"the step is recorded and never graded"`
	Deciding *measure.Reading  `json:"deciding,omitempty" doc:"the measure that decided; absent when a recording fault did"`
	Why      Why               `json:"why,omitempty" doc:"why it cannot be told"`
	Notes    int               `json:"notes,omitempty" doc:"of an ungraded step: how many different ones sounded"`
	TipKey   string            `json:"tip_key,omitempty"`
	Measures []measure.Reading `json:"measures" nullable:"false"`
	Causes   []measure.Cause   `json:"causes" doc:"everything outside its limit, worst kind first" nullable:"false"`
	// OldShort and OldSentence are the words of verdicts from before version 3.
	OldShort    string  `json:"short,omitempty"`
	OldSentence string  `json:"sentence,omitempty"`
	OldTip      *OldTip `json:"tip,omitempty"`
}

// OldTip is a tip as verdicts from before version 3 kept it.
type OldTip struct {
	Key  string `json:"key"`
	Text string `json:"text"`
}

// Cause is what the verdict counts under: what decided, or, where it cannot be told,
// the recording; "" for a clean take.
func (v Verdict) Cause() measure.Cause {
	switch {
	case v.Result == Clean:
		return ""
	case v.Result == CantTell && len(v.Causes) > 0:
		return v.Causes[0]
	case v.Deciding != nil:
		return v.Deciding.Cause
	}
	return ""
}

// Why is why a take cannot be told.
type Why string

const (
	WhySilent Why = "silent"    // the microphone gave nothing
	WhyNobody Why = "nobody"    // nobody is heard
	WhyCut    Why = "cut-short" // the recording ends before the step
	WhyNoisy  Why = "noisy"     // the room drowns the player
	WhyUnsure Why = "unsure"    // what decides cannot be relied on: Deciding says what and why
)

// Decided returns the index of the note that decided; measure.WholeStep where none did.
func (v Verdict) Decided() int {
	if v.Deciding == nil {
		return measure.WholeStep
	}
	return v.Deciding.Note
}

// Brief returns the verdict without the measures that did not decide: what is kept
// beside a take for lists of many.
func (v Verdict) Brief() Verdict {
	v.Measures, v.Causes = []measure.Reading{}, v.Causes[:min(len(v.Causes), 1)]
	return v
}

// nearlyExcess: one kind of measure this far outside its limit is still nearly.
const nearlyExcess = 1.5

// Case is what Decide judges: a take, and what has to be known for the tip.
type Case struct {
	measure.Case
	RecentTips []string // keys of the tips of the takes before, latest first
	Tips       Book     // the class's own words; the zero Book gives ours
}

// recorded reports whether the step is judged by its sound.
func (c Case) recorded() bool { return !c.Score.Ticked && !c.Score.Metered }

// A MismatchError reports a take that was not analysed with the score it is
// judged by.
type MismatchError struct{ Notes, Targets int }

func (e MismatchError) Error() string {
	return fmt.Sprintf(
		"verdict: %d notes were measured for %d targets: the analysis is of another score",
		e.Notes,
		e.Targets,
	)
}

// Decide gives the verdict. Errors: measure.UnknownError; MismatchError.
func Decide(c Case) (Verdict, error) {
	v := Verdict{Version: Version, Measures: []measure.Reading{}, Causes: []measure.Cause{}}
	if notes, targets := len(c.Analysis.Notes), len(c.Score.Targets()); c.recorded() && notes < targets {
		return v, MismatchError{notes, targets}
	}
	if c.recorded() {
		if why := unusable(c); why != "" {
			return v.cantTell(c, why, nil), nil
		}
	}
	if len(c.Score.Rules) == 0 {
		return v.heard(c), nil
	}
	readings, err := c.Readings()
	if err != nil {
		return v, err
	}
	v.Measures = append(v.Measures, readings...)
	if m, found := wrongInstrumentIn(c); found {
		v.Measures = append([]measure.Reading{m}, v.Measures...)
	}
	if m, found := distrusted(v.Measures); found {
		return v.cantTell(c, WhyUnsure, &m), nil
	}
	v.judge(c)
	return v, nil
}

func wrongInstrumentIn(c Case) (measure.Reading, bool) {
	if !c.recorded() || !c.Asks(measure.RightNote) {
		return measure.Reading{}, false
	}
	return measure.WrongInstrument(c.Case)
}

// unusable returns why the recording cannot be judged, or "".
func unusable(c Case) Why {
	has := func(f ear.Fault) bool { return slices.Contains(c.Analysis.Recording.Faults, f) }
	switch {
	case has(ear.NoSound):
		return WhySilent
	case measure.NobodyHeard(c.Case):
		return WhyNobody
	case has(ear.CutShort):
		return WhyCut
	case has(ear.Noisy):
		return WhyNoisy
	}
	return ""
}

// distrusted returns the first judged measure that cannot be relied on.
func distrusted(all []measure.Reading) (measure.Reading, bool) {
	n := slices.IndexFunc(all, func(m measure.Reading) bool { return m.Judged && m.Trust != "" })
	if n < 0 {
		return measure.Reading{}, false
	}
	// What is surely wrong is told, though something of less weight cannot be.
	if slices.ContainsFunc(all, func(m measure.Reading) bool {
		return m.Judged && !m.Within && m.Trust == "" && m.Cause.Rank() < all[n].Cause.Rank()
	}) {
		return measure.Reading{}, false
	}
	return all[n], true
}

func (v Verdict) cantTell(c Case, why Why, unsure *measure.Reading) Verdict {
	v.Result, v.Why, v.Deciding = CantTell, why, unsure
	v.Causes = []measure.Cause{measure.CauseRecording}
	if why == WhyNobody {
		v.Causes = []measure.Cause{measure.CauseNobody}
	}
	v.TipKey = c.choose(v.Causes, nil)
	return v
}

// heard is the word on a step that is never graded.
func (v Verdict) heard(c Case) Verdict {
	notes := map[int]bool{}
	for _, n := range c.Analysis.Notes {
		if n.Played {
			notes[int(n.MIDI)] = true
		}
	}
	v.Result, v.Ungraded, v.Notes = Clean, true, len(notes)
	v.TipKey = c.choose(nil, nil)
	return v
}

// judge decides from the measures.
func (v *Verdict) judge(c Case) {
	var outside []measure.Reading
	for _, m := range v.Measures {
		if m.Judged && !m.Within {
			outside = append(outside, m)
		}
	}
	against := slices.DeleteFunc(slices.Clone(outside), func(m measure.Reading) bool { return m.Tried })
	slices.SortStableFunc(outside, worseFirst)
	slices.SortStableFunc(against, worseFirst)
	for _, m := range outside {
		if !slices.Contains(v.Causes, m.Cause) {
			v.Causes = append(v.Causes, m.Cause)
		}
	}
	switch {
	case len(outside) == 0:
		v.Result = Clean
		v.Deciding = closest(v.Measures)
	case len(against) == 0:
		v.Result = Nearly // only hard notes are outside: counted as tried
		v.Deciding = &outside[0]
	case onlyCause(against) && greatest(against) <= nearlyExcess:
		v.Result = Nearly
		v.Deciding = &against[0]
	default:
		v.Result = NotYet
		v.Deciding = &against[0]
	}
	v.TipKey = c.choose(v.Causes, v.Deciding)
}

// onlyCause reports whether one kind of measure is outside, on however many notes.
func onlyCause(outside []measure.Reading) bool {
	return !slices.ContainsFunc(outside, func(m measure.Reading) bool { return m.Cause != outside[0].Cause })
}

func greatest(outside []measure.Reading) (excess float64) {
	for _, m := range outside {
		excess = max(excess, m.Excess)
	}
	return excess
}

// worseFirst orders what is far outside before what is only just, then by kind of
// cause, then by how far.
func worseFirst(a, b measure.Reading) int {
	if mildA, mildB := a.Excess <= nearlyExcess, b.Excess <= nearlyExcess; mildA != mildB {
		if mildA {
			return 1
		}
		return -1
	}
	if d := cmp.Compare(a.Cause.Rank(), b.Cause.Rank()); d != 0 {
		return d
	}
	switch {
	case a.Excess > b.Excess:
		return -1
	case a.Excess < b.Excess:
		return 1
	}
	return 0
}

// closest returns the measure nearest to its limit: what made a clean take
// clean. Pitch speaks before length, which is often exact.
func closest(all []measure.Reading) *measure.Reading {
	var best *measure.Reading
	for n := range all {
		m := &all[n]
		if m.Judged && m.Limit > 0 && m.Cause != measure.CauseHeld && (best == nil || m.Excess > best.Excess) {
			best = m
		}
	}
	return best
}

// OnlyHard reports whether nothing but hard notes lay outside: the take is counted
// as tried.
func (v Verdict) OnlyHard() bool { return v.Result == Nearly && v.Deciding != nil && v.Deciding.Tried }

// FailedHard reports whether hard notes lay so far outside that any other note would
// have been not yet: counted as tried in the grade, and as a fail on a ladder.
func (v Verdict) FailedHard() bool { return v.OnlyHard() && v.Deciding.Excess > nearlyExcess }

// Good reports whether a note kept every limit it was judged by, in a take that
// could be judged.
func (v Verdict) Good(note int) bool {
	if v.Result == CantTell {
		return false
	}
	return !slices.ContainsFunc(
		v.Measures,
		func(m measure.Reading) bool { return m.Note == note && m.Judged && !m.Within },
	)
}
