package plan_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
)

type set = map[string]any

func item(key, kind string, params set) plan.Item {
	return plan.Item{
		Key:    key,
		Step:   exercise.New(kind, params),
		Times:  1,
		Days:   plan.SchoolDays,
		At:     plan.Both,
		Wanted: 2,
	}
}

func band(t require.TestingT, stage scores.Stage, keys ...string) plan.Band {
	b := plan.Band{Conventions: exercise.StandardConventions()}
	for _, key := range keys {
		i, err := instrument.Get(key)
		require.NoError(t, err)
		b.Players = append(b.Players, exercise.Player{Instrument: i, Stage: stage})
	}
	return b
}

func wholeBand(t require.TestingT, stage scores.Stage) plan.Band {
	return band(t, stage, instrument.Keys()...)
}

// warmUp is twelve steps, more than any class has time for.
func warmUp() []plan.Item {
	return []plan.Item{
		item(
			"set-up",
			"set-up",
			nil,
		),
		item("breath", "breath-pattern", nil),
		item("air-buzz", "air-then-buzz", nil),
		item("buzz", "buzz-at-once", nil),
		item(
			"tune",
			"tuning-note",
			nil,
		),
		item("long", "long-tone-counted", nil),
		item("swell", "swell", nil),
		item("starts", "starts-and-ends", nil),
		item(
			"pair",
			"register-pair",
			nil,
		),
		item("slur", "slur-across-partials", nil),
		item("walk", "five-note-walk", nil),
		item("scale", "scale", nil),
	}
}

// bruteForce is the greatest worth over every choice there is.
func bruteForce(t require.TestingT, items []plan.Item, b plan.Band, at plan.Place, minutes float64) (best int) {
	best = -1
	var try func(k int, chosen []plan.Item, worth int)
	try = func(k int, chosen []plan.Item, worth int) {
		if k == len(items) {
			if worth <= best {
				return
			}
			sections, err := plan.DayLoad(chosen, b, at, minutes)
			require.NoError(t, err)
			for _, s := range sections {
				if len(s.Over) > 0 {
					return
				}
			}
			best = worth
			return
		}
		for _, o := range plan.Ways(items[k]) {
			if o.Dropped {
				try(k+1, chosen, worth)
				continue
			}
			try(k+1, append(chosen[:len(chosen):len(chosen)], o.Item), worth+o.Worth)
		}
	}
	try(0, nil, 0)
	return best
}

// The answer is the best there is: against every choice tried out, on small days
// drawn at random.
func TestFitIsExact(t *testing.T) {
	kinds := []string{
		"breath-pattern",
		"buzz-at-once",
		"buzz-slide",
		"tube-buzz-scale",
		"long-tone-counted",
		"starts-and-ends",
		"register-pair",
		"slur-across-partials",
		"scale",
		"swell",
		"overtones",
	}
	rapid.Check(t, func(t *rapid.T) {
		stage := scores.Stage(rapid.IntRange(1, 4).Draw(t, "stage"))
		at := rapid.SampledFrom([]plan.Place{plan.InClass, plan.AtHome}).Draw(t, "at")
		var items []plan.Item
		for n := range rapid.IntRange(1, 4).Draw(t, "items") {
			i := item(fmt.Sprint(n), rapid.SampledFrom(kinds).Draw(t, "kind"), nil)
			i.Times = rapid.IntRange(1, 2).Draw(t, "times")
			i.Wanted = plan.Wanted(rapid.IntRange(1, 3).Draw(t, "wanted"))
			i.Pinned = rapid.IntRange(0, 9).Draw(t, "pinned") == 0
			items = append(items, i)
		}
		b := band(t, stage, "clarinet", "trombone", rapid.SampledFrom(instrument.Keys()).Draw(t, "third"))
		minutes := float64(rapid.IntRange(1, 9).Draw(t, "minutes"))
		fitted, err := plan.Fit(items, b, at, minutes)
		require.NoError(t, err)
		best := bruteForce(t, items, b, at, minutes)
		if best < 0 {
			require.NotEmpty(t, fitted.Beyond, "nothing fits, and it says so")
			return
		}
		require.Empty(t, fitted.Beyond)
		require.Equal(t, best, fitted.Worth)
		sections, err := plan.DayLoad(fitted.Items, b, at, minutes)
		require.NoError(t, err)
		for _, s := range sections {
			require.Empty(t, s.Over)
		}
	})
}

func TestTwelveStepsForSixteenInstruments(t *testing.T) {
	for stage := scores.Stage(1); stage <= 4; stage++ {
		for _, at := range []plan.Place{plan.InClass, plan.AtHome} {
			start := time.Now()
			fitted, err := plan.Fit(warmUp(), wholeBand(t, stage), at, 0)
			require.NoError(t, err)
			t.Logf("stage %d, %s: %v, %d items, %.0f s", stage, at, time.Since(start), len(fitted.Items), fitted.Total)
			assert.NotEmpty(t, fitted.Items)
			if at == plan.InClass { // at home the later stages have time for all of it
				assert.NotEmpty(t, fitted.Cuts)
			}
			for _, c := range fitted.Cuts {
				assert.NotEmpty(t, c.Says)
				assert.NotEmpty(t, c.Why)
			}
		}
	}
}
