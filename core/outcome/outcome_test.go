package outcome_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/contour"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/outcome"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
)

func played(t *testing.T, kind, key string, set map[string]any, p synth.Player) (audio.Mono, scores.Score) {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := exercise.New(kind, set).Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(t, err)
	p.Instrument = i
	sound, _ := p.Play(s, 48000)
	return sound, s
}

func of(t *testing.T, sound audio.Mono, r outcome.Request) outcome.Outcome {
	t.Helper()
	o, err := outcome.Of(t.Context(), sound, r)
	require.NoError(t, err)
	return o
}

func TestATakeIsMeasuredJudgedAndDrawn(t *testing.T) {
	sound, s := played(
		t,
		exercise.KindLongToneCounted,
		"clarinet",
		map[string]any{"notes": []int{0}},
		synth.Player{Offset: -40},
	)
	o := of(t, sound, outcome.Request{Score: s})
	require.Len(t, o.Analysis.Notes, 1)
	assert.InDelta(t, -40, float64(o.Analysis.Notes[0].Centre), 1)
	assert.Equal(t, measure.CauseCentre, o.Verdict.Deciding.Cause)
	for _, points := range []int{96, 1200} {
		drawing, err := o.Draw(s, points)
		require.NoError(t, err)
		assert.Contains(t, drawing.Text, "C: flat")
		count := 0
		for _, stroke := range drawing.Strokes {
			count += len(stroke.Cents)
		}
		assert.LessOrEqual(t, count, points+2*len(drawing.Strokes))
	}
	assert.Empty(t, o.Tuning, "only a tuning note is answered with what to move")
}

// The class's own words, and what was said of late, decide the tip.
func TestTheTipIsTheClassesOwn(t *testing.T) {
	sound, s := played(
		t,
		exercise.KindLongToneCounted,
		"clarinet",
		map[string]any{"notes": []int{0}},
		synth.Player{Offset: -40},
	)
	first := of(t, sound, outcome.Request{Score: s})
	clarinet, err := instrument.Get("clarinet")
	require.NoError(t, err)
	key := first.Verdict.TipKey
	own := say.Teller{Instrument: clarinet, Tips: verdict.Book{key: "Think higher, says the class."}}
	assert.Equal(t, "Think higher, says the class.", own.Tip(first.Verdict).Text)
	never := of(t, sound, outcome.Request{Score: s, Tips: verdict.Book{key: ""}})
	assert.NotEqual(t, key, never.Verdict.TipKey, "a tip given no words is never given")
	asked := of(t, sound, outcome.Request{Score: s, RecentTips: []string{key, key, key, key}})
	assert.NotEqual(t, key, asked.Verdict.TipKey, "the same advice is not given for ever")
}

func TestATuningNoteSaysWhatToMove(t *testing.T) {
	for _, c := range []struct {
		offset music.Cents
		says   string
	}{{18, "slide out"}, {-18, "slide in"}} {
		sound, s := played(t, exercise.KindTuningNote, "trumpet", nil, synth.Player{Offset: c.offset})
		assert.Contains(t, of(t, sound, outcome.Request{Score: s}).Tuning, c.says)
	}
	sound, s := played(t, exercise.KindTuningNote, "trumpet", nil, synth.Player{Shift: 2})
	assert.Empty(t, of(t, sound, outcome.Request{Score: s}).Tuning, "another note is not tuned")
}

// A hold counts as a best only where the note came out.
func TestTheLongestNoteCountsWhenItCameOut(t *testing.T) {
	set := map[string]any{"cap_s": 10}
	sound, s := played(t, exercise.KindLongToneLongest, "flute", set, synth.Player{})
	assert.InDelta(t, 10, float64(of(t, sound, outcome.Request{Score: s}).Longest(s)), 0.3)
	sound, s = played(t, exercise.KindLongToneLongest, "flute", set, synth.Player{Offset: 70})
	assert.Zero(t, of(t, sound, outcome.Request{Score: s}).Longest(s))
}

func TestWhatCannotBeJudgedIsAnError(t *testing.T) {
	sound, s := played(t, exercise.KindLongToneCounted, "flute", map[string]any{"notes": []int{0}}, synth.Player{})
	stopped, stop := context.WithCancel(t.Context())
	stop()
	_, err := outcome.Of(stopped, sound, outcome.Request{Score: s})
	assert.ErrorIs(t, err, context.Canceled)
	_, err = outcome.Of(t.Context(), audio.Mono{Rate: 4000, Samples: make([]float64, 4000)}, outcome.Request{Score: s})
	assert.ErrorIs(t, err, contour.ErrRate)
	s.Instrument = "kazoo"
	_, err = outcome.Of(t.Context(), sound, outcome.Request{Score: s})
	assert.Error(t, err)
	_, err = outcome.Outcome{}.Draw(s, 96)
	assert.Error(t, err)
}

// A fault of the program in one take is that take's, whatever it is.
func TestAnEarThatFailsSaysSo(t *testing.T) {
	sound, s := played(t, exercise.KindLongToneCounted, "clarinet", nil, synth.Player{})
	s.Segments[2].Target = 100_000 // no step asks for such a note
	assert.NotPanics(t, func() {
		_, err := outcome.Of(context.Background(), sound, outcome.Request{Score: s})
		var failed outcome.FailedError
		assert.ErrorAs(t, err, &failed)
	})
}
