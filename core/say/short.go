package say

import (
	"math"

	"earlychorus/core/fmt"
	"earlychorus/core/measure"
	"earlychorus/core/verdict"
)

// Short says what decided in a few words, for a board's cell: "C5: stayed on F3".
func (t Teller) Short(v verdict.Verdict) string {
	switch {
	case v.OldShort != "":
		return v.OldShort
	case v.Ungraded:
		return differentNotes(v.Notes)
	case v.Result == verdict.CantTell:
		return whyNots[v.Why]
	case v.Deciding == nil || v.Result == verdict.Clean:
		return ""
	}
	m := *v.Deciding
	says, ok := shorts[m.Cause]
	if !ok {
		return t.Reading(m).Text
	}
	out := says(told{m, t})
	if m.Note >= 0 {
		out = t.Name(m.Target) + " " + out
	}
	return out
}

var whyNots = map[verdict.Why]string{
	verdict.WhySilent: "no sound recorded",
	verdict.WhyNobody: "nobody heard",
	verdict.WhyCut:    "recording cut short",
	verdict.WhyNoisy:  "room too loud",
	verdict.WhyUnsure: "not clear enough",
}

func came(format string) func(told) string {
	return func(r told) string { return fmt.Sprintf(format, r.came()) }
}

var shorts = map[measure.Cause]func(told) string{
	measure.CauseWrongInstrument: func(r told) string { return "all " + Interval(int(r.Value)) },
	measure.CauseRegisterLow:     came("stayed on %s"),
	measure.CauseSlurStays:       came("stayed on %s"),
	measure.CauseHeldOver:        came("stayed on %s"),
	measure.CauseRegisterHigh:    came("flew up to %s"),
	measure.CausePartial:         came("landed on %s"),
	measure.CauseFingering:       came("was %s"),
	measure.CauseWrongNote:       came("was %s"),
	measure.CauseNotTongued:      fixed("not tongued"),
	measure.CauseLeftOut:         fixed("left out"),
	measure.CauseNoResponse:      fixed("did not sound"),
	measure.CauseGap:             func(r told) string { return fmt.Sprintf("stopped %.1f s", r.Value) },
	measure.CauseBreak:           came("cracked to %s"),
	measure.CauseUndertone:       came("began with %s"),
	measure.CauseChirp:           fixed("squeaked"),
	measure.CauseCentre:          func(r told) string { return howFlat(r.Value) },
	measure.CauseLanding:         func(r told) string { return "landed " + howFlat(r.Value) },
	measure.CauseSteadiness:      fixed("wobbled"),
	measure.CauseDrift:           fixedWay("sank", "climbed"),
	measure.CauseFade:            fixedWay("faded", "grew"),
	measure.CauseStep:            fixedWay("suddenly softer", "suddenly louder"),
	measure.CauseBegins:          fixedWay("no tongue at the start", "tongued start"),
	measure.CauseSlurred:         fixed("slurred, not tongued"),
	measure.CauseHeld: func(r told) string {
		if r.Of == 0 {
			return fmt.Sprintf("%.0f s", r.Value)
		}
		return fmt.Sprintf("%s of %.0f beats", Halves(math.Min(r.Value, r.Of)), r.Of)
	},
	measure.CauseScoop:  fixedWay("started low", "started high"),
	measure.CauseEnding: fixed("end fell or cut"),
	measure.CausePace: func(r told) string {
		return fmt.Sprintf("%.0f %% %s", math.Abs(r.Value), r.way("slow", "fast"))
	},
	measure.CauseTempo:   fixedWay("slowed down", "sped up"),
	measure.CauseLate:    fixedWay("early", "late"),
	measure.CauseTiming:  fixedWay("before the beat", "after the beat"),
	measure.CauseChange:  fixed("slow change"),
	measure.CauseStrokes: func(r told) string { return fmt.Sprintf("%.0f of %.0f strokes", r.Value, r.Of) },
	measure.CauseStrokeTiming: func(r told) string {
		return r.way("strokes early", "strokes late")
	},
	measure.CauseEvenness:   fixed("uneven"),
	measure.CauseTongue:     fixed("tongued in the slur"),
	measure.CauseSwell:      fixed("soft and loud alike"),
	measure.CauseDynamics:   fixed("soft as loud as loud"),
	measure.CausePitchShift: fixedWay("falls when loud", "rises when loud"),
	measure.CausePulse:      fixedWay("too few pulses", "too many pulses"),
	measure.CauseSung: func(r told) string {
		if r.Absent {
			return "not sung"
		}
		return "sung off"
	},
	measure.CausePlayedInstead: fixed("played, not sung"),
	measure.CauseLine:          func(r told) string { return "no line " + lineNames[int(r.Value)] },
	measure.CauseSlide:         fixed("slide broke off"),
	measure.CauseApart:         fixed("high and low alike"),
	measure.CausePlateaus:      func(r told) string { return fmt.Sprintf("%.0f of %.0f notes", r.Of-r.Value, r.Of) },
	measure.CauseBursts:        bursts,
	measure.CauseAirEven:       fixed("uneven bursts"),
	measure.CauseAirLength:     fixedWay("air too short", "air too long"),
	measure.CauseMeterDelay:    fixed("ball late"),
	measure.CauseMeterSteady:   fixed("ball danced"),
	measure.CauseNotDone:       func(r told) string { return fmt.Sprintf("%.0f of %.0f done", r.Of-r.Value, r.Of) },
}
