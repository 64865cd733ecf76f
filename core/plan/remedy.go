package plan

import (
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
)

// remedies are the steps that mend a cause, by family; the empty family is the
// whole band (common practice, no published source).
var remedies = map[measure.Cause]func(instrument.Family) exercise.Step{
	measure.CauseWrongNote: byFamily(step("echo", nil), map[instrument.Family]recipe{
		instrument.Brass: step(
			"slur-across-partials",
			nil,
		),
		instrument.Clarinets: step("register-pair", nil),
		instrument.Flutes:    step("register-pair", nil),
	}),
	measure.CauseBreak: byFamily(
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
	measure.CauseUndertone: byFamily(
		step("starts-and-ends", nil),
		map[instrument.Family]recipe{instrument.Clarinets: step("register-pair", nil)},
	),
	measure.CauseNoResponse: byFamily(
		step("starts-and-ends", map[string]any{"loudness": "even"}),
		map[instrument.Family]recipe{
			instrument.Brass: step("buzz-at-once", nil),
		},
	),
	measure.CauseGap: byFamily(
		step("breath-pattern", map[string]any{"how": "steady", "rounds": 4}),
		map[instrument.Family]recipe{instrument.Brass: step("air-then-buzz", nil)},
	),
	measure.CauseSlide:    byFamily(step("buzz-slide", nil), nil),
	measure.CausePlateaus: byFamily(step("tube-buzz-scale", nil), nil),
	measure.CauseApart:    byFamily(step("high-low-buzz", nil), nil),
	measure.CauseSung:     byFamily(step("sing-first", map[string]any{"notes": []int{0}}), nil),
	measure.CauseLanding: byFamily(
		step("wide-leap", map[string]any{"leap": "fourth"}),
		map[instrument.Family]recipe{instrument.Brass: step("buzz-to-a-target", nil)},
	),
	measure.CauseCentre:     byFamily(step("sing-first", map[string]any{"notes": []int{0, 7}}), nil),
	measure.CauseSteadiness: byFamily(step("air-pulses", nil), nil),
	measure.CauseDrift:      byFamily(step(exercise.KindLongToneLongest, nil), nil),
	measure.CauseHeld:       byFamily(step(exercise.KindLongToneLongest, nil), nil),
	measure.CauseScoop: byFamily(
		step("starts-and-ends", map[string]any{"start": "breath", "loudness": "even"}),
		nil,
	),
	measure.CauseEnding: byFamily(step("starts-and-ends", map[string]any{"end": "taper"}), nil),
	measure.CauseLate: byFamily(
		step("starts-and-ends", nil),
		map[instrument.Family]recipe{instrument.Brass: step("buzz-at-once", nil)},
	),
	measure.CauseChange:   byFamily(step("neighbour-return", map[string]any{"fingers_first": true}), nil),
	measure.CauseTiming:   byFamily(step("rhythm-on-a-note", nil), nil),
	measure.CauseTempo:    byFamily(step("five-note-walk", map[string]any{"tempo_bpm": 60}), nil),
	measure.CauseEvenness: byFamily(step("chromatic-loop", map[string]any{"fingers_first": true}), nil),
	measure.CauseTongue: byFamily(
		step("neighbour-return", nil),
		map[instrument.Family]recipe{instrument.Brass: step("slur-across-partials", nil)},
	),
	measure.CauseSwell:       byFamily(step("swell", nil), nil),
	measure.CausePitchShift:  byFamily(step("swell", map[string]any{"beats": 3}), nil),
	measure.CausePulse:       byFamily(step("air-pulses", map[string]any{"pulses": 1}), nil),
	measure.CauseBursts:      byFamily(step("breath-pattern", map[string]any{"rounds": 6}), nil),
	measure.CauseAirEven:     byFamily(step("breath-pattern", map[string]any{"rounds": 6}), nil),
	measure.CauseAirLength:   byFamily(step("breath-pattern", map[string]any{"how": "spread", "rounds": 6}), nil),
	measure.CauseMeterDelay:  byFamily(step("air-meter", nil), nil),
	measure.CauseMeterSteady: byFamily(step("air-meter", nil), nil),
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
var inClassWords = map[measure.Cause]string{
	measure.CauseWrongNote:   "another note comes out",
	measure.CauseBreak:       "the note jumps",
	measure.CauseUndertone:   "a lower note sounds first",
	measure.CauseNoResponse:  "the note does not speak",
	measure.CauseGap:         "the sound stops",
	measure.CauseSlide:       "the slide has dead spots",
	measure.CausePlateaus:    "degrees are missing",
	measure.CauseApart:       "high and low lie too close",
	measure.CauseSung:        "the sung note is off",
	measure.CauseLanding:     "the leap misses",
	measure.CauseCentre:      "the pitch lies off",
	measure.CauseSteadiness:  "the pitch wavers",
	measure.CauseDrift:       "the pitch drifts",
	measure.CauseHeld:        "the note is too short",
	measure.CauseScoop:       "the start slides",
	measure.CauseEnding:      "the end falls or is cut",
	measure.CauseLate:        "the start is off the beat",
	measure.CauseChange:      "changes take too long",
	measure.CauseTiming:      "the rhythm is off the beat",
	measure.CauseTempo:       "the tempo does not hold",
	measure.CauseEvenness:    "the run is uneven",
	measure.CauseTongue:      "the tongue touches the slur",
	measure.CauseSwell:       "soft and loud hardly differ",
	measure.CausePitchShift:  "the pitch goes with loudness",
	measure.CausePulse:       "the pulses are off the beat",
	measure.CauseBursts:      "bursts are missing",
	measure.CauseAirEven:     "bursts are uneven",
	measure.CauseAirLength:   "the breath is too short or long",
	measure.CauseMeterDelay:  "the ball comes late",
	measure.CauseMeterSteady: "the ball dances",
}
