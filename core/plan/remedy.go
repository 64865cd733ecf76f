package plan

import (
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
)

// remedies are the steps that mend a cause, by family, in the order they are tried:
// the next one comes when a fortnight of the one before changed nothing. The empty
// family is everybody else, and the whole band (common practice, no published
// source).
var remedies = map[measure.Cause]inLine{
	measure.CauseRegisterLow: {
		instrument.Clarinets: {
			step(exercise.KindLadder, map[string]any{"ladder": "clarinet-break", "rung": 4}),
			step("register-pair", map[string]any{"pairs": 1}),
		},
		"": {
			step("register-pair", map[string]any{"pairs": 1}),
			step("breath-pattern", map[string]any{"how": "steady", "rounds": 4}),
		},
		instrument.DoubleReeds: {step("wide-leap", map[string]any{"leap": "octave"}), shortTone},
		instrument.Brass:       {step("slur-across-partials", nil)},
	},
	measure.CauseRegisterHigh: {
		instrument.Saxophones: {step(exercise.KindLadder, map[string]any{"ladder": "sax-low"}), shortTone},
		"":                    {shortTone, step(exercise.KindLongToneLongest, nil)},
	},
	measure.CausePartial: {
		"": {
			step("sing-first", map[string]any{"notes": []int{0, 7}}),
		},
		instrument.Brass: {
			step("sing-first", map[string]any{"notes": []int{0, 7}}),
			step("buzz-slide", nil),
			step("buzz-to-a-target", nil),
			step("slur-across-partials", nil),
		},
	},
	measure.CauseSlurStays: {
		"":               {step("sing-first", map[string]any{"notes": []int{0, 7}})},
		instrument.Brass: {step("buzz-slide", nil), step("buzz-to-a-target", nil), step("slur-across-partials", nil)},
	},
	measure.CauseFingering: {"": fingersAlone},
	measure.CauseHeldOver:  {"": fingersAlone},
	measure.CauseWrongNote: {"": {step("echo", nil), step("sing-first", nil)}},
	measure.CauseBreak: {
		"":                    {shortTone, step("swell", nil)},
		instrument.Brass:      {step("slur-across-partials", map[string]any{"beats": 3}), shortTone},
		instrument.Saxophones: {shortTone, step("overtones", nil)},
		instrument.Clarinets:  {step("register-pair", map[string]any{"pairs": 1}), shortTone},
	},
	measure.CauseChirp: {"": {shortTone, step("neighbour-return", map[string]any{"fingers_first": true})}},
	measure.CauseUndertone: {
		"":                   {step("starts-and-ends", nil)},
		instrument.Clarinets: {step("register-pair", map[string]any{"pairs": 1}), step("starts-and-ends", nil)},
	},
	measure.CauseNoResponse: {
		"":               {step("starts-and-ends", map[string]any{"loudness": "even"}), shortTone},
		instrument.Brass: {step("buzz-at-once", nil), step("air-then-buzz", nil)},
	},
	measure.CauseNotTongued: {"": {step("rhythm-on-a-note", nil), step("starts-and-ends", nil)}},
	measure.CauseLeftOut: {
		"": {
			step("five-note-walk", map[string]any{"fingers_first": true, "tempo_bpm": 60}),
			step("echo", nil),
		},
	},
	measure.CauseGap: {
		"":               {step("breath-pattern", map[string]any{"how": "steady", "rounds": 4}), shortTone},
		instrument.Brass: {step("air-then-buzz", nil), shortTone},
	},
	measure.CauseSlide:         {"": {step("buzz-slide", nil)}},
	measure.CausePlateaus:      {"": {step("tube-buzz-scale", nil)}},
	measure.CauseApart:         {"": {step("high-low-buzz", nil)}},
	measure.CauseSung:          {"": {step("sing-first", map[string]any{"notes": []int{0}}), step("echo", nil)}},
	measure.CausePlayedInstead: {"": {step("sing-first", map[string]any{"notes": []int{0}})}},
	measure.CauseLine:          {"": {step("excerpt", nil)}},
	measure.CauseLanding: {
		"":               {step("wide-leap", map[string]any{"leap": "fourth"})},
		instrument.Brass: {step("buzz-to-a-target", nil), step("wide-leap", map[string]any{"leap": "fourth"})},
	},
	measure.CauseCentre: {
		"": {step("tuning-note", nil), step("sing-first", map[string]any{"notes": []int{0, 7}})},
	},
	measure.CauseSteadiness: {
		"": {shortTone, step("breath-pattern", map[string]any{"how": "steady", "rounds": 4})},
	},
	measure.CauseDrift:  {"": untilTheEnd},
	measure.CauseFade:   {"": untilTheEnd},
	measure.CauseHeld:   {"": untilTheEnd},
	measure.CauseEnding: {"": {step("starts-and-ends", map[string]any{"end": "taper"}), untilTheEnd[0]}},
	measure.CauseScoop:  {"": {step("starts-and-ends", map[string]any{"start": "breath", "loudness": "even"})}},
	measure.CauseLate: {
		"":               {step("starts-and-ends", nil), step("rhythm-on-a-note", nil)},
		instrument.Brass: {step("buzz-at-once", nil), step("air-then-buzz", nil), step("air-meter", nil)},
	},
	measure.CauseChange: {"": fingersAlone},
	measure.CauseTiming: {"": {step("rhythm-on-a-note", nil), step("excerpt", nil)}},
	measure.CauseTempo:  {"": slowly},

	measure.CauseStrokes:      {"": {step("rhythm-on-a-note", map[string]any{"tempo_bpm": 60})}},
	measure.CauseStrokeTiming: {"": {step("rhythm-on-a-note", map[string]any{"tempo_bpm": 60})}},
	measure.CausePace:         {"": slowly},
	measure.CauseEvenness:     {"": {step("chromatic-loop", map[string]any{"fingers_first": true})}},
	measure.CauseSlurred: {
		"": {step("rhythm-on-a-note", nil), step("five-note-walk", map[string]any{"tempo_bpm": 60})},
	},
	measure.CauseBegins: {"": {step("starts-and-ends", map[string]any{"loudness": "even"})}},
	measure.CauseStep:   {"": untilTheEnd},
	measure.CauseTongue: {
		"":               {step("neighbour-return", nil)},
		instrument.Brass: {step("slur-across-partials", map[string]any{"over": "two"})},
	},
	measure.CauseSwell: {"": {step("swell", nil)}},
	measure.CauseDynamics: {
		"": {step("swell", nil), step("starts-and-ends", map[string]any{"loudness": "extremes"})},
	},
	measure.CausePitchShift:  {"": {step("swell", map[string]any{"beats": 3})}},
	measure.CausePulse:       {"": {step("air-pulses", map[string]any{"pulses": 1})}},
	measure.CauseBursts:      {"": {step("breath-pattern", map[string]any{"rounds": 6})}},
	measure.CauseAirEven:     {"": {step("breath-pattern", map[string]any{"rounds": 6})}},
	measure.CauseAirLength:   {"": {step("breath-pattern", map[string]any{"how": "spread", "rounds": 6})}},
	measure.CauseMeterDelay:  {"": {step("air-meter", nil)}},
	measure.CauseMeterSteady: {"": {step("air-meter", nil)}},
}

var (
	shortTone    = step(exercise.KindLongToneCounted, map[string]any{"beats": 4})
	fingersAlone = []recipe{
		step("neighbour-return", map[string]any{"fingers_first": true}),
		step("five-note-walk", map[string]any{"fingers_first": true, "tempo_bpm": 60}),
	}
	untilTheEnd = []recipe{
		step(exercise.KindLongToneLongest, nil),
		step("breath-pattern", map[string]any{"how": "spread", "rounds": 4}),
	}
	// slowly is two thirds of the usual 80.
	slowly = []recipe{step("five-note-walk", map[string]any{"tempo_bpm": 54}), step("rhythm-on-a-note", nil)}
)

// inLine are the remedies of a cause, by family.
type inLine map[instrument.Family][]recipe

// recipe is a step not yet made.
type recipe struct {
	kind string
	set  map[string]any
}

func step(kind string, set map[string]any) recipe { return recipe{kind, set} }
