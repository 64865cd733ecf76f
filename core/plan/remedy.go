package plan

import (
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/verdict"
)

// remedies are the steps that mend a cause, by family; the empty family is the
// whole band (common practice, no published source).
var remedies = map[verdict.Cause]func(instrument.Family) exercise.Step{
	verdict.CauseWrongNote: byFamily(step("echo", nil), map[instrument.Family]recipe{
		instrument.Brass: step(
			"slur-across-partials",
			nil,
		),
		instrument.Clarinets: step("register-pair", nil),
		instrument.Flutes:    step("register-pair", nil),
	}),
	verdict.CauseBreak: byFamily(
		step(exercise.KindLongToneCounted, map[string]any{"beats": 4}),
		map[instrument.Family]recipe{
			instrument.Brass: step(
				"slur-across-partials",
				map[string]any{"beats": 3},
			),
			instrument.Saxophones: step("overtones", nil),
			instrument.Clarinets:  step("register-pair", nil),
		},
	),
	verdict.CauseUndertone: byFamily(
		step("starts-and-ends", nil),
		map[instrument.Family]recipe{instrument.Clarinets: step("register-pair", nil)},
	),
	verdict.CauseNoResponse: byFamily(
		step("starts-and-ends", map[string]any{"loudness": "even"}),
		map[instrument.Family]recipe{
			instrument.Brass: step("buzz-at-once", nil),
		},
	),
	verdict.CauseGap: byFamily(
		step("breath-pattern", map[string]any{"how": "steady", "rounds": 4}),
		map[instrument.Family]recipe{instrument.Brass: step("air-then-buzz", nil)},
	),
	verdict.CauseSlide:    byFamily(step("buzz-slide", nil), nil),
	verdict.CausePlateaus: byFamily(step("tube-buzz-scale", nil), nil),
	verdict.CauseApart:    byFamily(step("high-low-buzz", nil), nil),
	verdict.CauseSung:     byFamily(step("sing-first", map[string]any{"notes": []int{0}}), nil),
	verdict.CauseLanding: byFamily(
		step("wide-leap", map[string]any{"leap": "fourth"}),
		map[instrument.Family]recipe{instrument.Brass: step("buzz-to-a-target", nil)},
	),
	verdict.CauseCentre:     byFamily(step("sing-first", map[string]any{"notes": []int{0, 7}}), nil),
	verdict.CauseSteadiness: byFamily(step("air-pulses", nil), nil),
	verdict.CauseDrift:      byFamily(step(exercise.KindLongToneLongest, nil), nil),
	verdict.CauseHeld:       byFamily(step(exercise.KindLongToneLongest, nil), nil),
	verdict.CauseScoop: byFamily(
		step("starts-and-ends", map[string]any{"start": "breath", "loudness": "even"}),
		nil,
	),
	verdict.CauseEnding: byFamily(step("starts-and-ends", map[string]any{"end": "taper"}), nil),
	verdict.CauseLate: byFamily(
		step("starts-and-ends", nil),
		map[instrument.Family]recipe{instrument.Brass: step("buzz-at-once", nil)},
	),
	verdict.CauseChange:   byFamily(step("neighbour-return", map[string]any{"fingers_first": true}), nil),
	verdict.CauseTiming:   byFamily(step("rhythm-on-a-note", nil), nil),
	verdict.CauseTempo:    byFamily(step("five-note-walk", map[string]any{"tempo_bpm": 60}), nil),
	verdict.CauseEvenness: byFamily(step("chromatic-loop", map[string]any{"fingers_first": true}), nil),
	verdict.CauseTongue: byFamily(
		step("neighbour-return", nil),
		map[instrument.Family]recipe{instrument.Brass: step("slur-across-partials", nil)},
	),
	verdict.CauseSwell:       byFamily(step("swell", nil), nil),
	verdict.CausePitchShift:  byFamily(step("swell", map[string]any{"beats": 3}), nil),
	verdict.CausePulse:       byFamily(step("air-pulses", map[string]any{"pulses": 1}), nil),
	verdict.CauseBursts:      byFamily(step("breath-pattern", map[string]any{"rounds": 6}), nil),
	verdict.CauseAirEven:     byFamily(step("breath-pattern", map[string]any{"rounds": 6}), nil),
	verdict.CauseAirLength:   byFamily(step("breath-pattern", map[string]any{"how": "spread", "rounds": 6}), nil),
	verdict.CauseMeterDelay:  byFamily(step("air-meter", nil), nil),
	verdict.CauseMeterSteady: byFamily(step("air-meter", nil), nil),
}

// recipe is a step not yet made.
type recipe struct {
	kind string
	set  map[string]any
}

func step(kind string, set map[string]any) recipe { return recipe{kind, set} }

func byFamily(usual recipe, special map[instrument.Family]recipe) func(instrument.Family) exercise.Step {
	return func(f instrument.Family) exercise.Step {
		r, ok := special[f]
		if !ok {
			r = usual
		}
		return exercise.New(r.kind, r.set)
	}
}

// inClassWords name a cause to a director.
var inClassWords = map[verdict.Cause]string{
	verdict.CauseWrongNote:   "another note comes out",
	verdict.CauseBreak:       "the note jumps",
	verdict.CauseUndertone:   "a lower note sounds first",
	verdict.CauseNoResponse:  "the note does not speak",
	verdict.CauseGap:         "the sound stops",
	verdict.CauseSlide:       "the slide has dead spots",
	verdict.CausePlateaus:    "degrees are missing",
	verdict.CauseApart:       "high and low lie too close",
	verdict.CauseSung:        "the sung note is off",
	verdict.CauseLanding:     "the leap misses",
	verdict.CauseCentre:      "the pitch lies off",
	verdict.CauseSteadiness:  "the pitch wavers",
	verdict.CauseDrift:       "the pitch drifts",
	verdict.CauseHeld:        "the note is too short",
	verdict.CauseScoop:       "the start slides",
	verdict.CauseEnding:      "the end falls or is cut",
	verdict.CauseLate:        "the start is off the beat",
	verdict.CauseChange:      "changes take too long",
	verdict.CauseTiming:      "the rhythm is off the beat",
	verdict.CauseTempo:       "the tempo does not hold",
	verdict.CauseEvenness:    "the run is uneven",
	verdict.CauseTongue:      "the tongue touches the slur",
	verdict.CauseSwell:       "soft and loud hardly differ",
	verdict.CausePitchShift:  "the pitch goes with loudness",
	verdict.CausePulse:       "the pulses are off the beat",
	verdict.CauseBursts:      "bursts are missing",
	verdict.CauseAirEven:     "bursts are uneven",
	verdict.CauseAirLength:   "the breath is too short or long",
	verdict.CauseMeterDelay:  "the ball comes late",
	verdict.CauseMeterSteady: "the ball dances",
}
