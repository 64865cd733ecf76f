package task_test

import (
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
	"earlychorus/core/task"
)

func told(t *testing.T, key, kind string, set map[string]any) (task.Task, scores.Score) {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := exercise.New(kind, set).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	return task.Of(s), s
}

// octaveDigit is a note with its octave, which beginners have never seen.
var octaveDigit = regexp.MustCompile(`\b[A-H][♭♯]?[0-9]\b`)

// Every kind tells every instrument it is for what to do, in few words.
func TestEveryKindSaysWhatToDo(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		step := exercise.New(k.Key, nil)
		for _, i := range instrument.All() {
			if !step.Suits(i) {
				continue
			}
			s, err := step.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
			require.NoError(t, err)
			told := task.Of(s)
			about := k.Key + ", " + i.Key + ": " + told.Sentence
			require.NotEmpty(t, told.Sentence, about)
			assert.NotRegexp(t, octaveDigit, told.Sentence, about)
			for one := range strings.SplitSeq(strings.TrimSuffix(told.Sentence, "."), ". ") {
				assert.LessOrEqual(t, len(strings.Fields(one)), 14, about)
			}
			for _, part := range told.Course {
				assert.NotRegexp(t, octaveDigit, part.Says, about)
			}
			assert.Positive(t, told.Times, about)
			for _, bar := range told.Bars {
				for _, symbol := range bar.Symbols {
					require.Less(t, symbol.Segment, len(s.Segments), about)
				}
			}
		}
	}
}

// What a first version left unsaid: how loud a swell is, how a note starts and ends,
// where a slide goes, how often the air moves.
func TestWhatIsAskedIsSaidBeforeItIsPlayed(t *testing.T) {
	swell, _ := told(t, "clarinet", "swell", nil)
	assert.Equal(t, "Start C very soft, grow very loud, fade to very soft.", swell.Sentence)
	hairpins := 0
	for _, bar := range swell.Bars {
		for _, s := range bar.Symbols {
			if s.Hairpin != "" {
				hairpins++
			}
		}
	}
	assert.Equal(t, 2, hairpins)
	ends, _ := told(t, "flute", "starts-and-ends", map[string]any{"start": "breath", "end": "taper"})
	assert.Equal(t, "Start B♭ right on the beat, with just your breath. Let the end fade.", ends.Sentence)
	slide, s := told(t, "trombone", "buzz-slide", nil)
	assert.Equal(t, "Slide your buzz from F down to B♭ in 4 beats.", slide.Sentence)
	assert.Equal(t, "Slide from F to B♭", s.Targets()[0].Text)
	goals := 0
	for _, symbol := range slide.Bars[0].Symbols {
		if symbol.Goal {
			goals++
			assert.Equal(t, "B", symbol.Note(s).Step)
		}
	}
	assert.Equal(t, 1, goals)
	pulses, _ := told(t, "tuba", "air-pulses", map[string]any{"pulses": 2})
	assert.Equal(t, "Hold B♭. Push the air 2 times on each beat, with no tongue.", pulses.Sentence)
}

// What comes again is engraved and told once.
func TestARepeatedPhraseIsToldOnce(t *testing.T) {
	slide, _ := told(t, "trombone", "buzz-slide", map[string]any{"repeats": 4})
	assert.Equal(t, 4, slide.Times)
	assert.Len(t, slide.Bars, 1)
}

// BenchmarkTask: a day's page tells every one of its steps, and the week ahead eight days of
// them. The reference beside it is laying the same step out, which the page did before.
func BenchmarkTask(b *testing.B) {
	i, err := instrument.Get("clarinet")
	require.NoError(b, err)
	step := exercise.New("chromatic-loop", map[string]any{"half": "whole"})
	who := exercise.Player{Instrument: i, Stage: 3}
	s, err := step.Score(who, exercise.StandardConventions())
	require.NoError(b, err)
	b.Run("told", func(b *testing.B) {
		for b.Loop() {
			task.Of(s)
		}
	})
	b.Run("laid out", func(b *testing.B) {
		for b.Loop() {
			_, _ = step.Score(who, exercise.StandardConventions())
		}
	})
}
