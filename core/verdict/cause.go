package verdict

import (
	"slices"

	"earlychorus/core/scores"
)

// Cause is why a take is not clean. Several measures may have one cause, and a
// tip answers a cause.
type Cause string

const (
	CauseRecording       Cause = "recording"
	CauseWrongInstrument Cause = "wrong-instrument"
	CauseNotDone         Cause = "not-done"
	CauseWrongNote       Cause = "wrong-note"
	CauseBreak           Cause = "break"
	CauseUndertone       Cause = "undertone"
	CauseNoResponse      Cause = "no-response"
	CauseGap             Cause = "gap"
	CauseSlide           Cause = "slide"
	CausePlateaus        Cause = "plateaus"
	CauseApart           Cause = "apart"
	CauseSung            Cause = "sung"
	CauseLanding         Cause = "landing"
	CauseCentre          Cause = "centre"
	CauseSteadiness      Cause = "steadiness"
	CauseDrift           Cause = "drift"
	CauseHeld            Cause = "held"
	CauseScoop           Cause = "scoop"
	CauseEnding          Cause = "ending"
	CauseLate            Cause = "late"
	CauseChange          Cause = "change"
	CauseTiming          Cause = "timing"
	CauseTempo           Cause = "tempo"
	CauseEvenness        Cause = "evenness"
	CauseTongue          Cause = "tongue"
	CauseSwell           Cause = "swell"
	CausePitchShift      Cause = "pitch-shift"
	CausePulse           Cause = "pulse"
	CauseBursts          Cause = "bursts"
	CauseAirEven         Cause = "air-even"
	CauseAirLength       Cause = "air-length"
	CauseMeterDelay      Cause = "meter-delay"
	CauseMeterSteady     Cause = "meter-steady"
)

// ranked orders the causes: mending a later one is no use before an earlier
// one. What is set wrong comes first, then which note sounds, whether it sounds,
// where it lies, how it holds, when it comes, how loud it is.
var ranked = []Cause{
	CauseRecording,
	CauseWrongInstrument,
	CauseNotDone,
	CauseWrongNote,
	CauseBreak,
	CauseUndertone,
	CauseNoResponse,
	CauseGap,
	CauseSlide,
	CausePlateaus,
	CauseApart,
	CauseSung,
	CauseLanding,
	CauseCentre,
	CauseSteadiness,
	CauseDrift,
	CauseHeld,
	CauseScoop,
	CauseEnding,
	CauseLate,
	CauseChange,
	CauseTiming,
	CauseTempo,
	CauseEvenness,
	CauseTongue,
	CauseSwell,
	CausePitchShift,
	CausePulse,
	CauseBursts,
	CauseAirEven,
	CauseAirLength,
	CauseMeterDelay,
	CauseMeterSteady,
}

// Causes lists every cause a verdict may name, the first to mend first.
func Causes() []Cause { return slices.Clone(ranked) }

func rank(c Cause) int { return slices.Index(ranked, c) }

// causeOf is what a measure outside its limit comes from.
var causeOf = map[scores.MeasureKey]Cause{
	scores.Speaks:      CauseNoResponse,
	scores.RightNote:   CauseWrongNote,
	scores.NoBreak:     CauseBreak,
	scores.NoGap:       CauseGap,
	scores.Centre:      CauseCentre,
	scores.Steadiness:  CauseSteadiness,
	scores.Held:        CauseHeld,
	scores.HoldTime:    CauseHeld,
	scores.Drift:       CauseDrift,
	scores.Response:    CauseLate,
	scores.Scoop:       CauseScoop,
	scores.Taper:       CauseEnding,
	scores.EndBend:     CauseEnding,
	scores.Change:      CauseChange,
	scores.Landing:     CauseLanding,
	scores.Settle:      CauseLanding,
	scores.Timing:      CauseTiming,
	scores.TempoDrift:  CauseTempo,
	scores.Evenness:    CauseEvenness,
	scores.NoTongue:    CauseTongue,
	scores.SwellRange:  CauseSwell,
	scores.SwellOrder:  CauseSwell,
	scores.PitchShift:  CausePitchShift,
	scores.DeadSpot:    CauseSlide,
	scores.Travel:      CauseSlide,
	scores.Plateaus:    CausePlateaus,
	scores.HighAbove:   CauseApart,
	scores.OwnCentre:   CauseSteadiness,
	scores.Undertone:   CauseUndertone,
	scores.PulseRate:   CausePulse,
	scores.Sung:        CauseSung,
	scores.AirBursts:   CauseBursts,
	scores.AirEven:     CauseAirEven,
	scores.AirLength:   CauseAirLength,
	scores.MeterDelay:  CauseMeterDelay,
	scores.MeterSteady: CauseMeterSteady,
	scores.TickedItems: CauseNotDone,
}
