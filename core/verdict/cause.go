package verdict

import (
	"slices"

	"earlychorus/core/exercise"
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
var causeOf = map[exercise.MeasureKey]Cause{
	exercise.Speaks:      CauseNoResponse,
	exercise.RightNote:   CauseWrongNote,
	exercise.NoBreak:     CauseBreak,
	exercise.NoGap:       CauseGap,
	exercise.Centre:      CauseCentre,
	exercise.Steadiness:  CauseSteadiness,
	exercise.Held:        CauseHeld,
	exercise.HoldTime:    CauseHeld,
	exercise.Drift:       CauseDrift,
	exercise.Response:    CauseLate,
	exercise.Scoop:       CauseScoop,
	exercise.Taper:       CauseEnding,
	exercise.EndBend:     CauseEnding,
	exercise.Change:      CauseChange,
	exercise.Landing:     CauseLanding,
	exercise.Settle:      CauseLanding,
	exercise.Timing:      CauseTiming,
	exercise.TempoDrift:  CauseTempo,
	exercise.Evenness:    CauseEvenness,
	exercise.NoTongue:    CauseTongue,
	exercise.SwellRange:  CauseSwell,
	exercise.SwellOrder:  CauseSwell,
	exercise.PitchShift:  CausePitchShift,
	exercise.DeadSpot:    CauseSlide,
	exercise.Travel:      CauseSlide,
	exercise.Plateaus:    CausePlateaus,
	exercise.HighAbove:   CauseApart,
	exercise.OwnCentre:   CauseSteadiness,
	exercise.Undertone:   CauseUndertone,
	exercise.PulseRate:   CausePulse,
	exercise.Sung:        CauseSung,
	exercise.AirBursts:   CauseBursts,
	exercise.AirEven:     CauseAirEven,
	exercise.AirLength:   CauseAirLength,
	exercise.MeterDelay:  CauseMeterDelay,
	exercise.MeterSteady: CauseMeterSteady,
	exercise.TickedItems: CauseNotDone,
}
