package meter_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/meter"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

func score(t *testing.T) scores.Score {
	t.Helper()
	i, err := instrument.Get("tuba")
	require.NoError(t, err)
	s, err := exercise.New(
		"air-meter",
		nil,
	).Score(
		exercise.Player{Instrument: i, Stage: 2},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	return s
}

func TestTheBallIsRead(t *testing.T) {
	s := score(t)
	blows := meter.Read(meter.Blower{Delay: 0.4, Learning: 0.2}.Blow(s), s)
	require.Len(t, blows, 4)
	want := music.Seconds(0.4)
	for _, b := range blows {
		assert.True(t, b.Heard)
		// The top is nine tenths of where the ball then stands.
		assert.InDelta(t, 0.9*float64(want), float64(b.Delay), 0.06)
		assert.InDelta(t, 4, float64(b.Length), 0.1)
		assert.Less(t, b.Unsteady, 0.02)
		want *= 0.8
	}
}

func TestADancingBallIsUnsteady(t *testing.T) {
	s := score(t)
	for _, b := range meter.Read(meter.Blower{Waver: 0.3}.Blow(s), s) {
		assert.InDelta(t, 0.3/1.414, b.Unsteady, 0.05)
	}
	for _, b := range meter.Read(meter.Blower{Over: 0.5}.Blow(s), s) {
		assert.InDelta(t, 0.4, b.Overshoot, 0.15)
		assert.Less(t, b.Unsteady, 0.05, "a jump at the start is not unsteadiness")
	}
}

func TestABlowThatIsMissing(t *testing.T) {
	s := score(t)
	blows := meter.Read(meter.Blower{Misses: 1}.Blow(s), s)
	assert.True(t, blows[2].Heard)
	assert.Equal(t, meter.Blow{}, blows[3])
	assert.Len(t, meter.Read(meter.Trace{Step: 0.02}, s), 4, "an empty trace is four blows that are not there")
}
