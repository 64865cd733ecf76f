package demo

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
)

func TestTheClassIsAsBigAndMixedAsPromised(t *testing.T) {
	assert.Len(t, people, 32)
	instruments := map[string]bool{}
	pins := map[string]bool{}
	for n, p := range people {
		_, err := instrument.Get(p.instrument)
		require.NoError(t, err)
		instruments[p.instrument] = true
		pins[PIN(n)] = true
	}
	assert.GreaterOrEqual(t, len(instruments), 10)
	assert.Len(t, pins, 32, "no two share a PIN")
}

func TestDaysAreSchoolDaysEndingToday(t *testing.T) {
	monday := time.Date(2026, 11, 23, 0, 0, 0, 0, time.UTC)
	d := firstDay(monday)
	assert.Equal(t, []int{19, 20, 23}, []int{d[0].Day(), d[1].Day(), d[2].Day()})
}

func TestTheSameTakeSoundsTheSame(t *testing.T) {
	i, err := instrument.Get("clarinet")
	require.NoError(t, err)
	s, err := exercise.New(
		exercise.KindLongToneCounted,
		map[string]any{"notes": []int{0}, "beats": 2, "rest_beats": 2, "tempo_bpm": 160},
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	a, _ := take{5, 1, 0}.player(i, 58, s.Kind).Play(s, rate)
	b, _ := take{5, 1, 0}.player(i, 58, s.Kind).Play(s, rate)
	c, _ := take{5, 0, 0}.player(i, 58, s.Kind).Play(s, rate)
	assert.Equal(t, a, b)
	assert.NotEqual(t, a, c)
}
