package verdict_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/meter"
	"earlychorus/core/music"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

// played lets a simulated player play a step of a kind and decides on it.
func played(t *testing.T, key, kind string, set map[string]any, p synth.Player) say.Said {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := exercise.New(kind, set).Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(t, err)
	p.Instrument = i
	if p.Room == 0 {
		p.Room = -74
	}
	sound, _ := p.Play(s, 24000)
	a, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s})
	require.NoError(t, err)
	return decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s, Analysis: a}})
}

// asWritten is a player as good as a player is.
var asWritten = synth.Player{
	Offset:  2,
	Jitter:  1.5,
	Late:    0.02,
	Release: 0.3,
}

// Who plays exactly what is written is clean, on every kind, with every measure
// of its pass rule taken.
func TestWhatIsPlayedAsWrittenIsClean(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		if k.Ticked || k.Metered {
			continue
		}
		for _, key := range []string{"clarinet", "trombone", "alto-sax"} {
			i, err := instrument.Get(key)
			require.NoError(t, err)
			if k.Suits != nil && !k.Suits(i) {
				continue
			}
			t.Run(k.Key+"/"+key, func(t *testing.T) {
				t.Parallel()
				v := played(t, key, k.Key, shortened[k.Key], asWritten)
				assert.Equal(t, verdict.Clean, v.Result, v.Sentence)
				for _, m := range v.Measures {
					assert.True(t, m.Within, "%s: %s %s", m.Label, m.Text, m.Wanted)
				}
			})
		}
	}
}

// And in every way a director may ask for it.
func TestWhatIsPlayedAsAskedIsClean(t *testing.T) {
	for _, c := range []struct {
		kind, key string
		set       map[string]any
	}{
		{"breath-pattern", "flute", map[string]any{"rounds": 2, "out": 8, "per_beat": 1}},
		{"growing-walk", "clarinet", map[string]any{"from": "home"}},
		{"growing-walk", "trombone", map[string]any{"to": 3, "beats": 2}},
		{"register-pair", "clarinet", map[string]any{"how": "down", "pairs": 2}},
		{"register-pair", "clarinet", map[string]any{"how": "climb"}},
		{"register-pair", "flute", map[string]any{"how": "upper", "pairs": 2}},
		{"register-pair", "alto-sax", map[string]any{"written": []string{"G4", "E4"}}},
		{"overtones", "alto-sax", map[string]any{"from": "real"}},
		{"overtones", "tenor-sax", map[string]any{"way": "both", "to": 4}},
		{"echo", "trumpet", map[string]any{"how": "canon"}},
		{"echo", "oboe", map[string]any{"how": "see", "written": []string{"B♭4", "C5", "B♭4"}}},
		{"air-pulses", "trombone", map[string]any{"on": "arpeggio"}},
		{"air-pulses", "flute", map[string]any{"on": "arpeggio", "rhythm": "turn", "pulses": 3}},
		{"scale", "euphonium", map[string]any{"form": "mixed"}},
		{"scale", "clarinet", map[string]any{"mode": "harmonic"}},
		{"scale", "alto-sax", map[string]any{"mode": "minor", "form": "arpeggio"}},
		{"rhythm-on-a-note", "horn", map[string]any{"notes": []int{2, 4, 7}, "each": "turn"}},
		{"starts-and-ends", "oboe", map[string]any{"wait": "three-step"}},
		{"chromatic-loop", "clarinet", map[string]any{"half": "throat", "way": "up"}},
		{"chromatic-loop", "alto-sax", map[string]any{"half": "upper", "loops": 1}},
		{"chromatic-loop", "bassoon", map[string]any{"half": "low", "loops": 1}},
		{"long-tone-counted", "clarinet", map[string]any{"written": []string{"E3", "F♯3"}}},
		{"ladder", "alto-sax", map[string]any{"join": "slurred"}},
		{"ladder", "trumpet", map[string]any{"ladder": "open-two"}},
	} {
		t.Run(c.kind+"/"+c.key, func(t *testing.T) {
			t.Parallel()
			v := played(t, c.key, c.kind, c.set, asWritten)
			assert.Equal(t, verdict.Clean, v.Result, v.Sentence)
		})
	}
}

// shortened keeps the tests short where a step's length is not what matters.
var shortened = map[string]map[string]any{
	"breath-pattern": {
		"rounds": 2,
	},
	"long-tone-longest": {"cap_s": 12},
	"long-tone-chain":   {"to": 2},
	"chromatic-loop":    {"loops": 1},
}

// Each kind's own faults, and what they are called.
func TestEachKindNamesItsOwnFault(t *testing.T) {
	for _, c := range []struct {
		kind, key string
		set       map[string]any
		player    synth.Player
		cause     measure.Cause
		tip       string
	}{
		{
			"breath-pattern", "flute",
			map[string]any{"rounds": 2},
			synth.Player{Bursts: -3},
			measure.CauseBursts, "bursts-few",
		},
		{
			"breath-pattern", "flute",
			map[string]any{"rounds": 2},
			synth.Player{Uneven: 0.22},
			measure.CauseAirEven, "air-even",
		},
		{"air-then-buzz", "trombone", nil, synth.Player{Late: 0.5}, measure.CauseLate, "late-buzz"},
		{
			"buzz-at-once", "trumpet", nil,
			synth.Player{Gaps: []synth.Gap{{At: 1, Length: 0.4}}},
			measure.CauseGap, "buzz-gap",
		},
		{"buzz-at-once", "trumpet", nil, synth.Player{Late: 0.35}, measure.CauseLate, "late-buzz"},
		{
			"buzz-slide", "trombone", nil,
			synth.Player{Gaps: []synth.Gap{{At: 2, Length: 0.4}}},
			measure.CauseSlide, "slide",
		},
		{"buzz-to-a-target", "horn", nil, synth.Player{Offset: 60}, measure.CauseLanding, "brass-landing-high"},
		{"tuning-note", "clarinet", nil, synth.Player{Offset: 14}, measure.CauseCentre, "sharp"},
		{"tuning-note", "clarinet", nil, synth.Player{Drift: 7}, measure.CauseDrift, "rises"},
		{"long-tone-longest", "flute", map[string]any{"cap_s": 12}, synth.Player{Held: 0.4}, measure.CauseHeld, "held"},
		{
			"long-tone-chain", "oboe",
			map[string]any{"to": 2},
			synth.Player{NoteOffsets: []music.Cents{0, -45}},
			measure.CauseCentre, "flat",
		},
		{"swell", "oboe", nil, synth.Player{Flatten: 0.9}, measure.CauseSwell, "swell"},
		{"swell", "oboe", nil, synth.Player{WithLevel: 45}, measure.CausePitchShift, "loud-sharp"},
		{"starts-and-ends", "alto-sax", nil, synth.Player{Scoop: -150, Release: 0.3}, measure.CauseScoop, "scoop-up"},
		{"starts-and-ends", "alto-sax", nil, synth.Player{Release: 0.04}, measure.CauseEnding, "ending-cut"},
		{"starts-and-ends", "alto-sax", nil, synth.Player{Late: 0.3, Release: 0.3}, measure.CauseLate, "late"},
		{"air-pulses", "tuba", nil, synth.Player{Pulsing: 0.7}, measure.CausePulse, "pulse-slow"},
		{
			"air-pulses", "tuba",
			map[string]any{"on": "arpeggio"},
			synth.Player{Pulsing: 1.4},
			measure.CausePulse, "pulse-fast",
		},
		{
			"growing-walk", "flute", nil,
			synth.Player{FaultOn: 5, Shift: 1},
			measure.CauseFingering, "wrong-finger",
		},
		{
			"register-pair", "clarinet",
			map[string]any{"pairs": 1, "how": "upper"},
			synth.Player{FaultOn: 1, Shift: -19},
			measure.CauseRegisterLow, "clarinet-low",
		},
		{
			"overtones", "alto-sax",
			map[string]any{"from": "real"},
			synth.Player{FaultOn: 4, Cracks: []synth.Crack{{Length: 9, Semitones: -7}}},
			measure.CauseRegisterLow, "sax-low",
		},
		{
			"echo", "trumpet",
			map[string]any{"how": "canon"},
			synth.Player{FaultOn: 2, Shift: -2},
			measure.CauseFingering, "wrong-finger",
		},
		{
			"starts-and-ends", "oboe",
			map[string]any{"wait": "three-step"},
			synth.Player{Late: 0.3, Release: 0.3},
			measure.CauseLate, "late",
		},
		{
			"neighbour-return", "bassoon", nil,
			synth.Player{FaultOn: 2, Shift: 1},
			measure.CauseFingering, "wrong-finger",
		},
		{"rhythm-on-a-note", "flute", nil, synth.Player{Late: 0.22}, measure.CauseTiming, "timing-late"},
		{
			"register-pair", "clarinet",
			map[string]any{"pairs": 1, "how": "direct"},
			synth.Player{FaultOn: 2, Shift: -19},
			measure.CauseRegisterLow, "clarinet-low",
		},
		{
			"slur-across-partials", "trombone", nil,
			synth.Player{FaultOn: 1, Shift: 5},
			measure.CausePartial, "brass-too-high",
		},
		{
			"wide-leap", "trumpet", nil,
			synth.Player{NoteOffsets: []music.Cents{0, 55, 0, 0, 55, 0}},
			measure.CauseLanding, "brass-landing-high",
		},
		{"sing-first", "flute", nil, synth.Player{NoteOffsets: []music.Cents{60, 60, 60}}, measure.CauseSung, "sung"},
		{"echo", "recorder", nil, synth.Player{FaultOn: 2, Shift: 2}, measure.CauseFingering, "wrong-finger"},
		{"overtones", "alto-sax", nil, synth.Player{FaultOn: 2, Shift: -7}, measure.CauseRegisterLow, "sax-low"},
	} {
		t.Run(c.kind+"/"+string(c.cause), func(t *testing.T) {
			t.Parallel()
			if c.key == "recorder" {
				c.key = "soprano-recorder"
			}
			v := played(t, c.key, c.kind, c.set, c.player)
			assert.NotEqual(t, verdict.Clean, v.Result)
			require.NotNil(t, v.Deciding, v.Sentence)
			assert.Equal(t, c.cause, v.Deciding.Cause, v.Sentence)
			assert.Equal(t, c.tip, v.Tip.Key, v.Sentence)
			assert.NotEmpty(t, v.Short)
		})
	}
}

// Who plays an excerpt and never buzzed it is told to do every line, not that each note of the
// buzz was silent.
func TestALineLeftOutIsToldAsALine(t *testing.T) {
	i, err := instrument.Get("trumpet")
	require.NoError(t, err)
	who := exercise.Player{Instrument: i, Stage: 2}
	s, err := exercise.New("excerpt", nil).Score(who, exercise.StandardConventions())
	require.NoError(t, err)
	mistake, ok := synth.MistakeOf("no-buzz-line")
	require.True(t, ok)
	sound, _ := mistake.Apply(synth.Player{Instrument: i, Room: -74}, s, 0).Play(24000)
	a, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s})
	require.NoError(t, err)
	v := decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s, Analysis: a}})
	require.NotNil(t, v.Deciding)
	assert.Equal(t, measure.CauseLine, v.Deciding.Cause)
	assert.Equal(t, []measure.Cause{measure.CauseLine}, v.Causes)
}

func TestATuneOfOnesOwnIsNeverGraded(t *testing.T) {
	v := played(t, "trumpet", exercise.KindMakeATune, nil, synth.Player{Seed: 3, Offset: -60})
	assert.Equal(t, verdict.Clean, v.Result)
	assert.True(t, v.Ungraded)
	assert.Nil(t, v.Deciding)
	assert.Contains(t, v.Sentence, "nobody grades it")
}

func TestTickedAndMeteredStepsAreJudgedWithoutSound(t *testing.T) {
	i, err := instrument.Get("trombone")
	require.NoError(t, err)
	lay := func(kind string) scores.Score {
		s, err := exercise.New(
			kind,
			nil,
		).Score(
			exercise.Player{Instrument: i, Stage: 2},
			exercise.StandardConventions(),
		)
		require.NoError(t, err)
		return s
	}
	s := lay("set-up")
	done := make([]bool, len(s.Items))
	for n := range done {
		done[n] = true
	}
	assert.Equal(
		t,
		verdict.Clean,
		decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s, Ticked: done}}).Result,
	)
	done[2] = false
	v := decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s, Ticked: done}})
	assert.Equal(t, verdict.Nearly, v.Result)
	assert.Contains(t, v.Sentence, s.Items[2])
	assert.Equal(t, verdict.NotYet, decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s}}).Result)

	s = lay("air-meter")
	judge := func(b meter.Blower) say.Said {
		return decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s, Blows: meter.Read(b.Blow(s), s)}})
	}
	assert.Equal(t, verdict.Clean, judge(meter.Blower{}).Result)
	assert.Equal(t, measure.CauseMeterDelay, judge(meter.Blower{Delay: 0.5}).Deciding.Cause)
	assert.Equal(t, measure.CauseMeterSteady, judge(meter.Blower{Waver: 0.5}).Deciding.Cause)
	assert.Contains(t, judge(meter.Blower{Misses: 1}).Sentence, "Blow 4: no air in the meter")
}

// A clarinet sheet on an E♭ saxophone: every note a fifth off, none of them on
// the clarinet's own tube.
func TestTheWrongInstrumentIsNotTheWrongNote(t *testing.T) {
	v := played(t, "clarinet", "five-note-walk", map[string]any{"way": "up"}, synth.Player{Shift: -7})
	assert.Equal(t, verdict.NotYet, v.Result)
	assert.Equal(t, measure.CauseWrongInstrument, v.Deciding.Cause)
	assert.Contains(t, v.Sentence, "Every note sounded a fifth down")
	assert.Equal(t, "wrong-instrument", v.Tip.Key)
	// A fifth up on brass is the next partial, and the player's to mend.
	v = played(t, "trumpet", "five-note-walk", map[string]any{"way": "up"}, synth.Player{Shift: 7})
	assert.Equal(t, measure.CausePartial, v.Deciding.Cause)
}

// In the first weeks the right note is the nearest partial.
func TestInTheFirstWeeksFarOffIsNotWrong(t *testing.T) {
	i, err := instrument.Get("trumpet")
	require.NoError(t, err)
	decideAt := func(stage scores.Stage) say.Said {
		s, err := exercise.New(
			exercise.KindLongToneCounted,
			map[string]any{"notes": []int{0}, "beats": 4},
		).Score(
			exercise.Player{Instrument: i, Stage: stage},
			exercise.StandardConventions(),
		)
		require.NoError(t, err)
		sound, _ := synth.Player{Instrument: i, Offset: -130, Room: -74}.Play(s, 24000)
		return decide(t, sound, i, s)
	}
	assert.Equal(t, measure.CauseCentre, decideAt(1).Deciding.Cause, "flat, but no other partial is nearer")
	assert.Equal(t, measure.CauseFingering, decideAt(2).Deciding.Cause)
}

// 1-2-3 on a valved instrument is sharp by its own tube: 53.6 cents (see
// core/instrument), which is allowed for, up to the limit again.
func TestTheTubeIsBlamedBeforeThePlayer(t *testing.T) {
	set := map[string]any{"notes": []int{1}, "beats": 4} // concert B on the trumpet: 1-2-3
	v := played(t, "trumpet", exercise.KindLongToneCounted, set, synth.Player{Offset: 40})
	assert.Equal(t, verdict.Clean, v.Result, v.Sentence)
	v = played(t, "trumpet", exercise.KindLongToneCounted, set, synth.Player{Offset: -40})
	assert.Equal(t, verdict.NotYet, v.Result, "flat is not what the tube does")
}
