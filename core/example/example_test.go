package example_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/example"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/plan"
)

// concerned are players of whom at least one is concerned by every question.
func concerned(t *testing.T) (out []exercise.Player) {
	t.Helper()
	for _, key := range []string{"clarinet", "flute", "trombone", "trumpet", "alto-sax"} {
		i, err := instrument.Get(key)
		require.NoError(t, err)
		out = append(out, exercise.Player{Instrument: i, Stage: 3})
	}
	euphonium, err := instrument.Get("euphonium")
	require.NoError(t, err)
	four, err := euphonium.As("4-valve")
	require.NoError(t, err)
	return append(out, exercise.Player{Instrument: four, Stage: 3})
}

// steps are every kind as it usually is, and a run over the whole clarinet.
var steps = func() (out []exercise.Step) {
	for _, k := range exercise.Catalogue() {
		out = append(out, exercise.New(k.Key, nil))
	}
	return append(out, exercise.New("chromatic-loop", map[string]any{"half": "whole"}))
}()

// made is everything that follows from a class's schools for some players: every kind's
// score, what a new long tone opens with, and the order of a warm-up.
func made(t *testing.T, c exercise.Conventions) string {
	t.Helper()
	var all []any
	for _, who := range concerned(t) {
		for _, step := range steps {
			for repeat := range 2 {
				who.Repeat = repeat
				if s, err := step.Score(who, c); err == nil {
					all = append(all, s)
				}
			}
		}
	}
	long := c.LongToneStep()
	all = append(all, long.Kind.Key, long.Values, c.GiveFor(long), plan.Reason(c.Begin))
	raw, err := json.Marshal(all)
	require.NoError(t, err)
	return string(raw)
}

func shown(t *testing.T, c exercise.Conventions) (out [][]example.Effect) {
	t.Helper()
	for _, who := range concerned(t) {
		out = append(out, example.Of(who, c))
	}
	return out
}

// Whatever a class chooses really changes a score, a cue or a plan, and its example shows
// it before it is saved.
func TestEveryChoiceMakesADifferenceThatIsShown(t *testing.T) {
	for _, school := range exercise.Schools() {
		scores, examples := map[string]string{}, map[string][][]example.Effect{}
		for _, o := range school.Options {
			c := exercise.StandardConventions()
			require.NoError(t, c.Set(school.Key, o.Key))
			scores[o.Key], examples[o.Key] = made(t, c), shown(t, c)
		}
		for n, a := range school.Options {
			for _, b := range school.Options[n+1:] {
				which := school.Key + ": " + a.Key + " or " + b.Key
				assert.False(t, scores[a.Key] == scores[b.Key], "%s changes nothing", which)
				assert.NotEqual(t, examples[a.Key], examples[b.Key], "%s is not shown", which)
			}
		}
	}
}
