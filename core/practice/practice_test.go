package practice_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/ladder"
	"earlychorus/core/music"
	"earlychorus/core/practice"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

func setting(key string) practice.Setting {
	return practice.Setting{Instrument: key, Stage: 2, Conventions: exercise.StandardConventions()}
}

func TestAStepIsWorkedOutAtTheTempoThatIsAllowed(t *testing.T) {
	step := exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{0}, "beats": 8, "tempo_bpm": 60})
	own, err := practice.Work(setting("clarinet"), step, 0)
	require.NoError(t, err)
	require.NotNil(t, own.Tempi)
	assert.Equal(t, exercise.Tempi{From: 48, To: 72, Own: 60}, *own.Tempi)

	slow, err := practice.Work(setting("clarinet"), step, 48)
	require.NoError(t, err)
	assert.InDelta(t, float64(own.Timeline.Total)*60/48, float64(slow.Timeline.Total), 1e-9)
	assert.Greater(t, slow.Score.Load.SoundSeconds, own.Score.Load.SoundSeconds, "the load follows the tempo")

	_, err = practice.Work(setting("clarinet"), step, 47)
	assert.ErrorContains(t, err, "48 to 72")

	strict := setting("clarinet")
	strict.Conventions.TempoGive = 0
	worked, err := practice.Work(strict, step, 0)
	require.NoError(t, err)
	assert.Nil(t, worked.Tempi)
	_, err = practice.Work(strict, step, 61)
	assert.ErrorContains(t, err, "only 60")
}

// Slower never asks for more than one breath holds.
func TestNoTempoOnOfferAsksForMoreThanABreath(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		step := exercise.New(k.Key, nil)
		tempi, free := step.Tempi(40)
		if !free {
			continue
		}
		assert.LessOrEqual(t, tempi.From, tempi.Own, k.Key)
		assert.GreaterOrEqual(t, tempi.To, tempi.Own, k.Key)
		for _, bpm := range []music.Tempo{tempi.From, tempi.To} {
			_, err := step.AtTempo(bpm, 40)
			assert.NoError(t, err, "%s at %v", k.Key, bpm)
		}
	}
}

func TestASettingSurvivesTheWayToADevice(t *testing.T) {
	before := setting("euphonium-4v")
	before.Instrument, before.Variant, before.Rungs, before.Best = "euphonium", "", map[string]int{
		"clarinet-break": 3,
	}, 12.5
	raw, err := json.Marshal(before)
	require.NoError(t, err)
	var after practice.Setting
	require.NoError(t, json.Unmarshal(raw, &after))
	assert.Equal(t, before, after)
	_, err = practice.Setting{Instrument: "kazoo"}.Player()
	assert.Error(t, err)
}

// A device that climbs by itself stands where the server's replay of the same
// log does.
func TestClimbingHereIsReplayingThere(t *testing.T) {
	clarinet, err := instrument.Get("clarinet")
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		view, known := practice.LadderOf("clarinet-break", clarinet, nil, 1, "2026-11-26")
		require.True(t, known)
		var log []ladder.Entry
		for n := range rapid.IntRange(0, 40).Draw(t, "entries") {
			e := ladder.Entry{
				What:    ladder.Tried,
				Day:     rapid.SampledFrom([]string{"2026-11-26", "2026-11-27"}).Draw(t, "day"),
				Rung:    view.Rung,
				Seconds: 9,
				Result: rapid.SampledFrom(
					[]verdict.Result{verdict.Clean, verdict.Clean, verdict.Nearly, verdict.NotYet, verdict.CantTell},
				).Draw(
					t,
					"result",
				),
			}
			if rapid.IntRange(0, 9).Draw(t, "back") == 0 {
				e = ladder.Entry{What: ladder.SteppedBack, Day: e.Day}
			}
			log = append(log, e)
			before := view
			var move ladder.Move
			view, move = practice.Climb(view, clarinet, e)
			if move == ladder.Up {
				assert.Equal(t, before.Rung+1, view.Rung, "entry %d", n)
			}
		}
		assert.Equal(t, ladder.Standard().Replay(len(view.Rungs), log), view.State)
	})
	_, known := practice.LadderOf("to-the-moon", clarinet, nil, 1, "2026-11-26")
	assert.False(t, known)
}

func load(l scores.Load, kind string, ago music.Seconds) practice.Played {
	return practice.Played{Kind: kind, Load: l, Ago: ago}
}

// The caps are common practice, no published source.
func TestRestsHoldTheNextStep(t *testing.T) {
	long := scores.Score{
		Kind:  exercise.KindLongToneCounted,
		Stage: 2,
		Load:  scores.Load{SoundSeconds: 16, LipSeconds: 16},
	}
	buzz := scores.Score{
		Kind:  "buzz-at-once",
		Stage: 2,
		Load:  scores.Load{SoundSeconds: 40, LipSeconds: 40, BuzzSeconds: 40},
	}
	breath := scores.Score{Kind: "breath-pattern", Stage: 2, Load: scores.Load{Rounds: 8}}
	crossing := scores.Score{
		Kind:  "register-pair",
		Stage: 2,
		Load:  scores.Load{SoundSeconds: 20, BreakSeconds: 100},
	}
	beginner := long
	beginner.Stage, beginner.Load.LipSeconds = 1, 60
	for _, c := range []struct {
		name  string
		next  scores.Score
		today []practice.Played
		hold  music.Seconds
		over  bool
	}{
		{"nothing was played", long, nil, 0, false},
		{"a long tone asks for no rest", long, []practice.Played{load(long.Load, long.Kind, 1)}, 0, false},
		{
			"register work rests as long as it played", long,
			[]practice.Played{load(crossing.Load, "register-pair", 5)},
			15, false,
		},
		{"and no longer", long, []practice.Played{load(crossing.Load, "register-pair", 25)}, 0, false},
		{
			"more than a minute of buzzing waits for a minute off", buzz,
			[]practice.Played{load(buzz.Load, "buzz-at-once", 10)},
			50, false,
		},
		{"after a minute off it may go on", buzz, []practice.Played{load(buzz.Load, "buzz-at-once", 61)}, 0, false},
		{
			"a second breathing of eight rounds is too much for a day", breath,
			[]practice.Played{load(breath.Load, "breath-pattern", 3000)},
			0, true,
		},
		{
			"five minutes over the break are enough",
			crossing,
			[]practice.Played{
				load(crossing.Load, "register-pair", 900), load(crossing.Load, "register-pair", 1900),
				load(crossing.Load, "register-pair", 2900),
			},
			0, true,
		},
		{
			"young lips sound for half of ten minutes",
			beginner,
			[]practice.Played{
				load(scores.Load{LipSeconds: 150}, long.Kind, 60),
				load(scores.Load{LipSeconds: 150}, long.Kind, 500),
			},
			100, false,
		},
	} {
		got := practice.Before(c.next, c.today)
		assert.InDelta(t, float64(c.hold), float64(got.Seconds), 1e-9, c.name)
		assert.Equal(t, c.over, got.Over, c.name)
		if got.Seconds > 0 || got.Over {
			assert.NotEmpty(t, got.Why, c.name)
		}
	}
}
