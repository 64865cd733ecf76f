package lesson

import (
	"slices"

	"earlychorus/core/explain"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

// Right reports whether a conclusion's parts are what a teacher would say: the
// verdict, the account of the target, and the tip.
func (e Expectation) Right(l Lesson, c Conclusion) (word, account, tip bool) {
	word = slices.Contains(e.Results, c.Verdict.Result)
	if len(e.Causes) > 0 {
		word = word && len(c.Verdict.Causes) > 0 && slices.Contains(e.Causes, c.Verdict.Causes[0])
	}
	account, tip = true, true
	if e.Account != "" {
		a := c.Analysis.Accounts[l.Target]
		kind := a.Kind
		if e.Account == explain.OtherPartial && kind == explain.HeldOver {
			kind = e.Account // the note before is that partial too
		}
		account = kind == e.Account && (e.Came == 0 || a.Came == e.Came)
	}
	if len(e.Tips) > 0 {
		tip = slices.Contains(e.Tips, c.Verdict.TipKey)
	}
	return word, account, tip
}

var (
	good   = []verdict.Result{verdict.Clean}
	faulty = []verdict.Result{verdict.Nearly, verdict.NotYet}
)

// expectation is what a teacher concludes from a mistake (common practice, no
// published source).
func (l Lesson) expectation() Expectation {
	if l.Mistake == "" {
		return Expectation{Results: good}
	}
	if l.Mistake == "silent" {
		return Expectation{
			Results: []verdict.Result{verdict.CantTell},
			Causes:  []measure.Cause{measure.CauseNobody, measure.CauseRecording},
		}
	}
	e := Expectation{Results: faulty, Causes: causesOf[l.Mistake]}
	brass := l.Instrument.Family == instrument.Brass
	targets := l.Score.Targets()
	m, _ := synth.MistakeOf(l.Mistake)
	made := m.Apply(synth.Player{Instrument: l.Instrument}, l.Score, l.Target).Score.Targets()
	switch l.Mistake {
	case "stays":
		e.Account, e.Came = explain.HeldOver, targets[l.Target-1].Target
		e.Causes = l.staysFor(brass)
	case "comes-low", "flies-up":
		e.Account, e.Came = explain.OtherPartial, made[l.Target].Target
		e.Causes = []measure.Cause{measure.CausePartial}
		if !brass && l.Mistake == "comes-low" {
			e.Causes = []measure.Cause{measure.CauseRegisterLow}
		} else if !brass {
			e.Causes = []measure.Cause{measure.CauseRegisterHigh}
		}
		if l.Target > 0 && made[l.Target].Target == targets[l.Target-1].Target {
			e.Causes = append(e.Causes, l.staysFor(brass)...) // it sounds as if the note before went on
		}
	case "half-step-low", "half-step-high", "whole-step-low":
		e.Account, e.Came = explain.OtherFingering, made[l.Target].Target
	case "starts-high", "starts-low":
		e.Account = explain.Played
	case "left-out":
		e.Account = explain.LeftOut
	}
	return e
}

// staysFor is why a slurred note goes on.
func (l Lesson) staysFor(brass bool) []measure.Cause {
	targets := l.Score.Targets()
	before, now := targets[l.Target-1].Target, targets[l.Target].Target
	for _, p := range l.Instrument.Partials(now) {
		if p.Note == before {
			switch {
			case brass:
				return []measure.Cause{measure.CauseSlurStays}
			case before < now:
				return []measure.Cause{measure.CauseRegisterLow}
			}
			return []measure.Cause{measure.CauseRegisterHigh}
		}
	}
	return []measure.Cause{measure.CauseHeldOver}
}

var causesOf = map[string][]measure.Cause{
	"starts-high":     {measure.CauseRegisterHigh, measure.CauseBreak, measure.CausePartial},
	"starts-low":      {measure.CauseUndertone},
	"half-step-low":   {measure.CauseFingering},
	"half-step-high":  {measure.CauseFingering},
	"whole-step-low":  {measure.CauseFingering},
	"wrong-sheet":     {measure.CauseWrongInstrument},
	"left-out":        {measure.CauseLeftOut},
	"missing":         {measure.CauseLeftOut, measure.CauseNoResponse},
	"comes-late":      {measure.CauseLate, measure.CauseChange},
	"starts-late":     {measure.CauseLate, measure.CauseTiming},
	"too-fast":        {measure.CausePace},
	"too-slow":        {measure.CausePace},
	"rushes":          {measure.CauseTempo, measure.CausePace, measure.CauseTiming},
	"cut-off":         {measure.CauseHeld},
	"sinks":           {measure.CauseDrift, measure.CauseEnding},
	"climbs":          {measure.CauseDrift},
	"fades":           {measure.CauseFade},
	"swells":          {measure.CauseFade},
	"wavers":          {measure.CauseSteadiness},
	"flat":            {measure.CauseCentre},
	"sharp":           {measure.CauseCentre},
	"gap":             {measure.CauseGap},
	"crack":           {measure.CauseBreak},
	"chirps":          {measure.CauseChirp},
	"same-loudness":   {measure.CauseDynamics},
	"uneven":          {measure.CauseEvenness},
	"pushes-few":      {measure.CausePulse},
	"pushes-many":     {measure.CausePulse},
	"breathes-starts": {measure.CauseBegins},
	"tongues-starts":  {measure.CauseBegins},
	"slurs-instead":   {measure.CauseSlurred},
	"tongues-instead": {measure.CauseTongue},
	"not-tongued":     {measure.CauseNotTongued},
	"tongues-slurs":   {measure.CauseTongue},
	"plays-instead":   {measure.CausePlayedInstead},
	"does-not-sing":   {measure.CauseSung},
	"no-air-line":     {measure.CauseLine},
	"no-buzz-line":    {measure.CauseLine},
}
