// Package verdict decides what a take was worth: clean, nearly, not yet or
// can't tell, which measure decided it, and one tip.
package verdict

import (
	"fmt"
	"slices"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/take"
)

// Result is a take's worth.
type Result string

const (
	Clean    Result = "clean"
	Nearly   Result = "nearly"
	NotYet   Result = "not-yet"
	CantTell Result = "cant-tell"
)

// Version names the rules; verdicts keep the version they were given under.
const Version = 1

// Verdict is the word on one take.
type Verdict struct {
	Version  int       `json:"version"`
	Result   Result    `json:"result" enum:"clean,nearly,not-yet,cant-tell"`
	Deciding *Measure  `json:"deciding,omitempty" doc:"the measure that decided; absent when a recording fault did"`
	Short    string    `json:"short" doc:"what decided, in a few words, for a board's cell"`
	Sentence string    `json:"sentence"`
	Tip      Tip       `json:"tip"`
	Measures []Measure `json:"measures" nullable:"false"`
	Causes   []Cause   `json:"causes" nullable:"false" doc:"everything outside its limit, worst kind first"`
}

// nearlyExcess: one kind of measure this far outside its limit is still nearly.
const nearlyExcess = 1.5

// rank orders causes: mending a later one is no use before an earlier one.
var rank = []Cause{
	CauseRecording, CauseWrongNote, CauseBreak, CauseNoResponse, CauseGap, CauseCentre, CauseSteadiness, CauseHeld,
}

// Case is what Decide judges.
type Case struct {
	Instrument instrument.Instrument
	Score      exercise.Score
	Analysis   take.Analysis
	FreeStart  bool     // the recording was not made to our click
	RecentTips []string // keys of the tips of the takes before, latest first
}

// Decide gives the verdict. It needs an analysis made with the same score.
func Decide(c Case) Verdict {
	v := Verdict{Version: Version, Measures: []Measure{}, Causes: []Cause{}}
	for n, target := range c.Score.Targets() {
		v.Measures = append(v.Measures, measures(n, target, c.Analysis.Notes[n], eventsOf(c.Analysis, n), c.Score, c.FreeStart)...)
	}
	if short, sentence := unusable(c.Analysis, c.Score); sentence != "" {
		v.Result, v.Short, v.Sentence = CantTell, short, sentence
		v.Causes = []Cause{CauseRecording}
		v.Tip = choose(v.Causes, nil, c)
		return v
	}
	v.judge(c)
	return v
}

func eventsOf(a take.Analysis, note int) (out []take.Event) {
	for _, e := range a.Events {
		if e.Note == note {
			out = append(out, e)
		}
	}
	return out
}

// unusable returns why the recording cannot be judged, in few and in more
// words, or nothing.
func unusable(a take.Analysis, s exercise.Score) (short, sentence string) {
	has := func(f take.Fault) bool { return slices.Contains(a.Recording.Faults, f) }
	switch {
	case has(take.NoSound):
		return "no sound recorded", "The recording is silent. Check that the right microphone is chosen, then try again."
	case has(take.CutShort):
		return "recording cut short", "The recording ends before the step does, so it cannot be judged."
	case has(take.Noisy):
		return "room too loud", fmt.Sprintf("The room is too loud: your sound is only %.0f dB above it. Find a quieter place or come closer.", a.Recording.SNR)
	}
	for n, note := range a.Notes {
		if note.Played && !note.WrongNote && !note.Trusted {
			return "pitch not clear", fmt.Sprintf("The %s could not be measured: %s.", s.Targets()[n].WrittenName, note.WhyNot)
		}
	}
	return "", ""
}

// judge decides from the measures.
func (v *Verdict) judge(c Case) {
	var outside []Measure
	for _, m := range v.Measures {
		if m.Judged && !m.Within {
			outside = append(outside, m)
		}
	}
	held := slices.DeleteFunc(slices.Clone(outside), func(m Measure) bool { return m.Tried })
	slices.SortStableFunc(outside, worseFirst)
	slices.SortStableFunc(held, worseFirst)
	for _, m := range outside {
		if !slices.Contains(v.Causes, m.Cause) {
			v.Causes = append(v.Causes, m.Cause)
		}
	}
	switch {
	case len(outside) == 0:
		v.Result = Clean
		v.Deciding = closest(v.Measures)
	case len(held) == 0:
		v.Result = Nearly // only hard notes are outside: counted as tried
		v.Deciding = &outside[0]
	case onlyCause(held) && held[0].Excess <= nearlyExcess:
		v.Result = Nearly
		v.Deciding = &held[0]
	default:
		v.Result = NotYet
		v.Deciding = &held[0]
	}
	v.Short, v.Sentence = v.brief(c.Score), v.say(c.Score)
	v.Tip = choose(v.Causes, v.Deciding, c)
}

// onlyCause reports whether one kind of measure is outside, on however many notes.
func onlyCause(outside []Measure) bool {
	return !slices.ContainsFunc(outside, func(m Measure) bool { return m.Cause != outside[0].Cause })
}

// worseFirst orders by kind of cause, then by how far outside.
func worseFirst(a, b Measure) int {
	if d := slices.Index(rank, a.Cause) - slices.Index(rank, b.Cause); d != 0 {
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
func closest(all []Measure) *Measure {
	var best *Measure
	for n := range all {
		m := &all[n]
		if m.Judged && m.Limit > 0 && m.Cause != CauseHeld && (best == nil || m.Excess > best.Excess) {
			best = m
		}
	}
	return best
}

// brief says the deciding measure in a few words: "C4 gap of 0.30 s".
func (v Verdict) brief(s exercise.Score) string {
	m := v.Deciding
	if m == nil {
		return ""
	}
	about := m.Text
	switch m.Cause {
	case CauseGap:
		about = fmt.Sprintf("gap of %.2f s", m.Value)
	case CauseBreak:
		about = fmt.Sprintf("jumps for %.2f s", m.Value)
	case CauseHeld:
		about = "held " + m.Text
	}
	return s.Targets()[m.Note].WrittenName + " " + about
}

func (v Verdict) say(s exercise.Score) string {
	m := v.Deciding
	if m == nil {
		return "Clean."
	}
	target := s.Targets()[m.Note]
	about := fmt.Sprintf("%s: %s (%s)", target.WrittenName, m.Text, m.Wanted)
	switch m.Cause {
	case CauseWrongNote:
		about = fmt.Sprintf("%s: %s", target.WrittenName, m.Text)
	case CauseGap:
		about = fmt.Sprintf("%s: the sound stopped, %s", target.WrittenName, m.Text)
	case CauseBreak:
		about = fmt.Sprintf("%s: it jumped away, %s", target.WrittenName, m.Text)
	case CauseNoResponse:
		about = fmt.Sprintf("%s: %s", target.WrittenName, m.Text)
	}
	if v.Result == Clean {
		about = fmt.Sprintf("%s: %s (%s)", target.WrittenName, m.Text, m.Wanted)
	}
	if m.Tried && v.Result != Clean {
		about += ". A hard note: it counts as tried"
	}
	return about + "."
}
