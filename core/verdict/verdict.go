// Package verdict decides what a take was worth: clean, nearly, not yet or
// can't tell, which measure decided it, and one tip.
package verdict

import (
	"cmp"
	"fmt"
	"slices"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/measure"
	"earlychorus/core/scores"
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
const Version = 2

// Verdict is the word on one take.
type Verdict struct {
	Version  int               `json:"version"`
	Result   Result            `json:"result" enum:"clean,nearly,not-yet,cant-tell"`
	Ungraded bool              `json:"ungraded,omitempty" doc:"the step is recorded and never graded"`
	Deciding *measure.Reading  `json:"deciding,omitempty" doc:"the measure that decided; absent when a recording fault did"`
	Short    string            `json:"short" doc:"what decided, in a few words, for a board's cell"`
	Sentence string            `json:"sentence"`
	Tip      Tip               `json:"tip"`
	Measures []measure.Reading `json:"measures" nullable:"false"`
	Causes   []measure.Cause   `json:"causes" doc:"everything outside its limit, worst kind first" nullable:"false"`
}

// Decided returns the index of the note that decided; measure.WholeStep where none did.
func (v Verdict) Decided() int {
	if v.Deciding == nil {
		return measure.WholeStep
	}
	return v.Deciding.Note
}

// nearlyExcess: one kind of measure this far outside its limit is still nearly.
const nearlyExcess = 1.5

// Case is what Decide judges: a take, and what has to be known for the tip.
type Case struct {
	measure.Case
	RecentTips []string            // keys of the tips of the takes before, latest first
	Tips       Book                // the class's own words; the zero Book gives ours
	Air        exercise.AirPicture // the class's school of words for air; "" is the usual one
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
		if cause, short, sentence := unusable(c); sentence != "" {
			return v.cantTell(c, cause, short, sentence), nil
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
		name := "This take"
		if m.Note >= 0 {
			name = "The " + c.Score.Targets()[m.Note].WrittenName
		}
		says := fmt.Sprintf("%s could not be measured: %s.", name, m.Trust)
		return v.cantTell(c, measure.CauseRecording, "pitch not clear", says), nil
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

// unusable returns why the recording cannot be judged, in few and in more
// words, or nothing.
func unusable(c Case) (cause measure.Cause, short, sentence string) {
	a := c.Analysis
	has := func(f ear.Fault) bool { return slices.Contains(a.Recording.Faults, f) }
	switch {
	case has(ear.NoSound):
		return measure.CauseRecording, "no sound recorded", "The recording is silent. Check that the right " +
			"microphone is chosen, then try again."
	case measure.NobodyHeard(c.Case):
		return measure.CauseNobody, "nobody heard", "Nothing was heard. Check the microphone, then play."
	case has(ear.CutShort):
		return measure.CauseRecording, "recording cut short", "The recording ends before the step does, so it " +
			"cannot be judged."
	case has(ear.Noisy):
		return measure.CauseRecording, "room too loud", fmt.Sprintf(
			"The room is too loud: your sound is only %.0f dB above it. Find a quieter place or come closer.",
			a.Recording.SNR,
		)
	}
	return "", "", ""
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

func (v Verdict) cantTell(c Case, cause measure.Cause, short, sentence string) Verdict {
	v.Result, v.Short, v.Sentence = CantTell, short, sentence
	v.Causes = []measure.Cause{cause}
	v.Tip = c.choose(v.Causes, nil)
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
	v.Result, v.Ungraded = Clean, true
	v.Short = fmt.Sprintf("%d different notes", len(notes))
	if len(notes) == 1 {
		v.Short = "one note"
	}
	v.Sentence = fmt.Sprintf("Recorded: %s. This one is yours, and nobody grades it.", v.Short)
	v.Tip = c.choose(nil, nil)
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
	v.Short, v.Sentence = v.brief(c.Score), v.say(c.Score)
	v.Tip = c.choose(v.Causes, v.Deciding)
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

// nameOf is where a measure was taken, before what it says: "C4 ", or nothing for
// the whole step.
func nameOf(m *measure.Reading, s scores.Score) string {
	if m.Note < 0 {
		return ""
	}
	return s.Targets()[m.Note].WrittenName
}

// brief says the deciding measure in a few words: "C4 gap of 0.30 s".
func (v Verdict) brief(s scores.Score) string {
	m := v.Deciding
	if m == nil {
		return ""
	}
	about := m.Text
	switch {
	case m.Cause == measure.CauseGap && !m.Within:
		about = fmt.Sprintf("gap of %.2f s", m.Value)
	case m.Cause == measure.CauseBreak && !m.Within:
		about = fmt.Sprintf("jumps for %.2f s", m.Value)
	case m.Key == measure.Held.Key:
		about = "held " + m.Text
	}
	if name := nameOf(m, s); name != "" {
		return name + " " + about
	}
	return about
}

func (v Verdict) say(s scores.Score) string {
	m := v.Deciding
	if m == nil {
		return "Clean."
	}
	about := fmt.Sprintf("%s (%s)", m.Text, m.Wanted)
	if !m.Within {
		switch m.Cause {
		case measure.CauseWrongNote, measure.CauseNoResponse, measure.CauseWrongInstrument:
			about = m.Text
		case measure.CauseGap:
			about = "the sound stopped, " + m.Text
		case measure.CauseBreak:
			about = "it jumped away, " + m.Text
		case measure.CauseUndertone:
			about = "a lower note sounded first, " + m.Text
		}
	}
	if name := nameOf(m, s); name != "" {
		about = name + ": " + about
	} else {
		about = m.Label + ": " + about
	}
	if m.Tried && v.Result != Clean {
		about += ". A hard note: it counts as tried"
	}
	return about + "."
}

// OnlyHard reports whether nothing but hard notes lay outside: the take is counted
// as tried.
func (v Verdict) OnlyHard() bool { return v.Result == Nearly && v.Deciding != nil && v.Deciding.Tried }

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
