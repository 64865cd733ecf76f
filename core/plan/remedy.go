package plan

import (
	"sync"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
)

// remedies are the steps that mend a cause, by family, in the order they are tried:
// the next one comes when a fortnight of the one before changed nothing. The empty
// family is everybody else, and the whole band (common practice, no published
// source).
//
// The table is made when it is first asked for: the browser's core never asks, and is
// linked without it.
func remedies() map[measure.Cause]inLine {
	onceRemedies.Do(func() { allRemedies = tableOfRemedies() })
	return allRemedies
}

var (
	onceRemedies sync.Once
	allRemedies  map[measure.Cause]inLine
)

func tableOfRemedies() map[measure.Cause]inLine {
	shortTone := recipe{exercise.KindLongToneCounted, map[string]any{"beats": 4}}
	fingersAlone := []recipe{
		{"neighbour-return", map[string]any{"fingers_first": true}},
		{"five-note-walk", map[string]any{"fingers_first": true, "tempo_bpm": 60}},
	}
	untilTheEnd := []recipe{
		{exercise.KindLongToneLongest, nil},
		{"breath-pattern", map[string]any{"how": "spread", "rounds": 4}},
	}
	// slowly is two thirds of the usual 80.
	slowly := []recipe{{"five-note-walk", map[string]any{"tempo_bpm": 54}}, {"rhythm-on-a-note", nil}}
	return map[measure.Cause]inLine{
		measure.CauseRegisterLow: {
			instrument.Clarinets: {
				{exercise.KindLadder, map[string]any{"ladder": "clarinet-break", "rung": 4}},
				{"register-pair", map[string]any{"pairs": 1}},
			},
			"": {
				{"register-pair", map[string]any{"pairs": 1}},
				{"breath-pattern", map[string]any{"how": "steady", "rounds": 4}},
			},
			instrument.DoubleReeds: {{"wide-leap", map[string]any{"leap": "octave"}}, shortTone},
			instrument.Brass:       {{"slur-across-partials", nil}},
		},
		measure.CauseRegisterHigh: {
			instrument.Saxophones: {{exercise.KindLadder, map[string]any{"ladder": "sax-low"}}, shortTone},
			"":                    {shortTone, {exercise.KindLongToneLongest, nil}},
		},
		measure.CausePartial: {
			"": {
				{"sing-first", map[string]any{"notes": []int{0, 7}}},
			},
			instrument.Brass: {
				{"sing-first", map[string]any{"notes": []int{0, 7}}},
				{"buzz-slide", nil},
				{"buzz-to-a-target", nil},
				{"slur-across-partials", nil},
			},
		},
		measure.CauseSlurStays: {
			"":               {{"sing-first", map[string]any{"notes": []int{0, 7}}}},
			instrument.Brass: {{"buzz-slide", nil}, {"buzz-to-a-target", nil}, {"slur-across-partials", nil}},
		},
		measure.CauseFingering: {"": fingersAlone},
		measure.CauseHeldOver:  {"": fingersAlone},
		measure.CauseWrongNote: {"": {{"echo", nil}, {"sing-first", nil}}},
		measure.CauseBreak: {
			"":                    {shortTone, {"swell", nil}},
			instrument.Brass:      {{"slur-across-partials", map[string]any{"beats": 3}}, shortTone},
			instrument.Saxophones: {shortTone, {"overtones", nil}},
			instrument.Clarinets:  {{"register-pair", map[string]any{"pairs": 1}}, shortTone},
		},
		measure.CauseChirp: {"": {shortTone, {"neighbour-return", map[string]any{"fingers_first": true}}}},
		measure.CauseUndertone: {
			"":                   {{"starts-and-ends", nil}},
			instrument.Clarinets: {{"register-pair", map[string]any{"pairs": 1}}, {"starts-and-ends", nil}},
		},
		measure.CauseNoResponse: {
			"":               {{"starts-and-ends", map[string]any{"loudness": "even"}}, shortTone},
			instrument.Brass: {{"buzz-at-once", nil}, {"air-then-buzz", nil}},
		},
		measure.CauseNotTongued: {"": {{"rhythm-on-a-note", nil}, {"starts-and-ends", nil}}},
		measure.CauseLeftOut: {
			"": {
				{"five-note-walk", map[string]any{"fingers_first": true, "tempo_bpm": 60}},
				{"echo", nil},
			},
		},
		measure.CauseGap: {
			"":               {{"breath-pattern", map[string]any{"how": "steady", "rounds": 4}}, shortTone},
			instrument.Brass: {{"air-then-buzz", nil}, shortTone},
		},
		measure.CauseSlide:         {"": {{"buzz-slide", nil}}},
		measure.CausePlateaus:      {"": {{"tube-buzz-scale", nil}}},
		measure.CauseApart:         {"": {{"high-low-buzz", nil}}},
		measure.CauseSung:          {"": {{"sing-first", map[string]any{"notes": []int{0}}}, {"echo", nil}}},
		measure.CausePlayedInstead: {"": {{"sing-first", map[string]any{"notes": []int{0}}}}},
		measure.CauseLine:          {"": {{"excerpt", nil}}},
		measure.CauseLanding: {
			"":               {{"wide-leap", map[string]any{"leap": "fourth"}}},
			instrument.Brass: {{"buzz-to-a-target", nil}, {"wide-leap", map[string]any{"leap": "fourth"}}},
		},
		measure.CauseCentre: {
			"": {{"tuning-note", nil}, {"sing-first", map[string]any{"notes": []int{0, 7}}}},
		},
		measure.CauseSteadiness: {
			"": {shortTone, {"breath-pattern", map[string]any{"how": "steady", "rounds": 4}}},
		},
		measure.CauseDrift:  {"": untilTheEnd},
		measure.CauseFade:   {"": untilTheEnd},
		measure.CauseHeld:   {"": untilTheEnd},
		measure.CauseEnding: {"": {{"starts-and-ends", map[string]any{"end": "taper"}}, untilTheEnd[0]}},
		measure.CauseScoop:  {"": {{"starts-and-ends", map[string]any{"start": "breath", "loudness": "even"}}}},
		measure.CauseLate: {
			"":               {{"starts-and-ends", nil}, {"rhythm-on-a-note", nil}},
			instrument.Brass: {{"buzz-at-once", nil}, {"air-then-buzz", nil}, {"air-meter", nil}},
		},
		measure.CauseChange: {"": fingersAlone},
		measure.CauseTiming: {"": {{"rhythm-on-a-note", nil}, {"excerpt", nil}}},
		measure.CauseTempo:  {"": slowly},

		measure.CauseStrokes:      {"": {{"rhythm-on-a-note", map[string]any{"tempo_bpm": 60}}}},
		measure.CauseStrokeTiming: {"": {{"rhythm-on-a-note", map[string]any{"tempo_bpm": 60}}}},
		measure.CausePace:         {"": slowly},
		measure.CauseEvenness:     {"": {{"chromatic-loop", map[string]any{"fingers_first": true}}}},
		measure.CauseSlurred: {
			"": {{"rhythm-on-a-note", nil}, {"five-note-walk", map[string]any{"tempo_bpm": 60}}},
		},
		measure.CauseBegins: {"": {{"starts-and-ends", map[string]any{"loudness": "even"}}}},
		measure.CauseStep:   {"": untilTheEnd},
		measure.CauseTongue: {
			"":               {{"neighbour-return", nil}},
			instrument.Brass: {{"slur-across-partials", map[string]any{"over": "two"}}},
		},
		measure.CauseSwell: {"": {{"swell", nil}}},
		measure.CauseDynamics: {
			"": {{"swell", nil}, {"starts-and-ends", map[string]any{"loudness": "extremes"}}},
		},
		measure.CausePitchShift:  {"": {{"swell", map[string]any{"beats": 3}}}},
		measure.CausePulse:       {"": {{"air-pulses", map[string]any{"pulses": 1}}}},
		measure.CauseBursts:      {"": {{"breath-pattern", map[string]any{"rounds": 6}}}},
		measure.CauseAirEven:     {"": {{"breath-pattern", map[string]any{"rounds": 6}}}},
		measure.CauseAirLength:   {"": {{"breath-pattern", map[string]any{"how": "spread", "rounds": 6}}}},
		measure.CauseMeterDelay:  {"": {{"air-meter", nil}}},
		measure.CauseMeterSteady: {"": {{"air-meter", nil}}},
	}
}

// inLine are the remedies of a cause, by family.
type inLine map[instrument.Family][]recipe

// recipe is a step not yet made.
type recipe struct {
	kind string
	set  map[string]any
}
