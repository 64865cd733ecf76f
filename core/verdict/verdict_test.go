package verdict_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

// judge plays one home note of six beats at 120 and decides on it at stage 2.
func judge(t *testing.T, key string, p synth.Player, recent ...string) say.Said {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := exercise.New(
		exercise.KindLongToneCounted,
		map[string]any{"notes": []int{0}, "beats": 6, "rest_beats": 4, "tempo_bpm": 120},
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	p.Instrument = i
	sound, _ := p.Play(s, 48000)
	return decide(t, sound, i, s, recent...)
}

func decide(
	t *testing.T,
	sound audio.Mono,
	i instrument.Instrument,
	s scores.Score,
	recent ...string,
) say.Said {
	t.Helper()
	a, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s})
	require.NoError(t, err)
	return decided(verdict.Case{Case: measure.Case{Instrument: i, Score: s, Analysis: a}, RecentTips: recent})
}

func TestEachFaultDecides(t *testing.T) {
	jump := 7
	for _, c := range []struct {
		name   string
		player synth.Player
		result verdict.Result
		cause  measure.Cause
		says   string
		tip    string
	}{
		{
			"steady",
			synth.Player{Offset: 4},
			verdict.Clean, measure.CauseCentre,
			"Everything was as it should be.", "clean-listen",
		},
		{
			"a little flat",
			synth.Player{Offset: -30},
			verdict.Nearly, measure.CauseCentre, "C4 was flat.",
			"brass-flat",
		},
		{"very flat", synth.Player{Offset: -45}, verdict.NotYet, measure.CauseCentre, "C4 was flat.", "brass-flat"},
		{"sharp", synth.Player{Offset: 45}, verdict.NotYet, measure.CauseCentre, "C4 was sharp.", "brass-sharp"},
		{"wavering", synth.Player{WaverDepth: 40}, verdict.NotYet, measure.CauseSteadiness, "C4 was wobbly.", "waver"},
		{
			"a gap before flatness",
			synth.Player{Offset: -40, Gaps: []synth.Gap{{At: 1, Length: 0.3}}},
			verdict.NotYet, measure.CauseGap, "C4 stopped for a third of a second.", "brass-gap",
		},
		{
			"a crack",
			synth.Player{Cracks: []synth.Crack{{At: 1, Length: 0.2, Semitones: jump}}},
			verdict.NotYet, measure.CauseBreak, "C4 cracked to G4 for a quarter of a second.", "brass-break",
		},
		{"short", synth.Player{Held: 0.6}, verdict.NotYet, measure.CauseHeld, "of 6 beats", "held"},
		{
			"wrong partial",
			synth.Player{Shift: jump},
			verdict.NotYet, measure.CausePartial, "You landed on G4. C4 was asked.",
			"brass-too-high",
		},
	} {
		c.player.Room = -72
		v := judge(t, "trumpet", c.player)
		assert.Equal(t, c.result, v.Result, c.name)
		require.NotNil(t, v.Deciding, c.name)
		assert.Equal(t, c.cause, v.Deciding.Cause, c.name)
		assert.Contains(t, v.Sentence, c.says, c.name)
		assert.Equal(t, c.tip, v.Tip.Key, c.name)
	}
}

func TestRecordingFaultIsNeverAPlayingFault(t *testing.T) {
	i, _ := instrument.Get("flute")
	s, err := exercise.New(
		exercise.KindLongToneCounted,
		nil,
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	v := decide(t, audio.Mono{Rate: 16000, Samples: make([]float64, int(s.Seconds())*16000)}, i, s)
	assert.Equal(t, verdict.CantTell, v.Result)
	assert.Nil(t, v.Deciding)
	assert.Equal(t, []measure.Cause{measure.CauseRecording}, v.Causes)

	noisy := judge(t, "trumpet", synth.Player{Room: -28})
	assert.Equal(t, verdict.CantTell, noisy.Result)
	assert.Contains(t, noisy.Sentence, "room")
}

func TestSameTipIsNotGivenThreeTimesRunning(t *testing.T) {
	v := judge(t, "trumpet", synth.Player{Offset: -45, Room: -72}, "brass-flat", "brass-flat")
	assert.NotEqual(t, "brass-flat", v.Tip.Key)
	v = judge(t, "clarinet", synth.Player{WaverDepth: 40, Room: -72}, "waver", "waver")
	assert.Equal(t, "waver-soft", v.Tip.Key)
	v = judge(t, "clarinet", synth.Player{WaverDepth: 40, Room: -72}, "waver-soft", "waver-soft", "waver", "waver")
	assert.Equal(t, verdict.AskDirector, v.Tip.Key)
	v = judge(t, "clarinet", synth.Player{WaverDepth: 40, Room: -72}, "waver", "held")
	assert.Equal(t, "waver", v.Tip.Key)
}

func TestHardNoteCountsAsTried(t *testing.T) {
	i, _ := instrument.Get("horn") // G4 upwards is hard at first
	s, err := exercise.New(
		exercise.KindLongToneCounted,
		map[string]any{"notes": []int{12}, "beats": 4, "rest_beats": 4, "tempo_bpm": 120},
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	require.True(t, s.Targets()[0].Hard)
	sound, _ := synth.Player{Instrument: i, Offset: -40, Room: -72}.Play(s, 48000)
	assert.Equal(t, verdict.Clean, decide(t, sound, i, s).Result, "judged by stage 1's ±50 cents")
	sound, _ = synth.Player{Instrument: i, Held: 0.3, Room: -72}.Play(s, 48000)
	v := decide(t, sound, i, s)
	assert.Equal(t, verdict.Nearly, v.Result)
	assert.Contains(t, v.Sentence, "counts as tried")
}

func TestFlatOrSharp(t *testing.T) {
	for c, want := range map[music.Cents]string{-17.6: "18 cents flat", 1: "1 cent sharp", 0.3: "in tune"} {
		assert.Equal(t, want, say.FlatOrSharp(c))
	}
}

// decided is Decide for cases whose rules this version knows.
// decided is the verdict with its words.
func decided(c verdict.Case) say.Said {
	v, err := verdict.Decide(c)
	if err != nil {
		panic(err)
	}
	return say.Teller{Instrument: c.Instrument, Items: c.Score.Items}.Verdict(v)
}

// A rule that a newer version wrote is refused by name; the next take is judged.
func TestAMeasureThisVersionDoesNotKnow(t *testing.T) {
	c := longTone(t)
	c.Score.Rules = append(slices.Clone(c.Score.Rules), scores.Rule{Measure: "warmth of heart", Limit: 1})
	_, err := verdict.Decide(c)
	var unknown measure.UnknownError
	require.ErrorAs(t, err, &unknown)
	assert.Equal(t, scores.MeasureKey("warmth of heart"), unknown.Key)
	assert.ErrorContains(t, err, "warmth of heart")
	assert.Equal(t, verdict.Clean, decided(longTone(t)).Result)
}

func TestATakeOfAnotherScoreIsRefused(t *testing.T) {
	c := longTone(t)
	c.Analysis.Notes = nil
	_, err := verdict.Decide(c)
	assert.ErrorAs(t, err, &verdict.MismatchError{})
}
