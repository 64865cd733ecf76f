package exercise_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/scores"
)

// Each instrument is told of what it has: nobody else has a register key (common
// practice, no published source).
func TestTheUpperNoteIsReachedByWhatThereIs(t *testing.T) {
	words := map[instrument.Family][]string{
		instrument.Clarinets:   {"Register key"},
		instrument.Saxophones:  {"Octave key"},
		instrument.Recorders:   {"Pinch the thumb hole"},
		instrument.DoubleReeds: {"Half hole", "Octave key", "Flick key"},
		instrument.Flutes:      {"Smaller opening, faster air"},
	}
	asked := 0
	for _, i := range instrument.All() {
		who := exercise.Player{Instrument: i, Stage: 4}
		score, err := exercise.New("register-pair", nil).Score(who, exercise.StandardConventions())
		if err != nil {
			require.ErrorIs(t, err, exercise.ErrNotFor)
			continue
		}
		for n, s := range score.Segments {
			if n == 0 || s.Articulation != scores.Slurred {
				continue
			}
			assert.Contains(t, words[i.Family], s.Text, i.Key)
			asked++
		}
	}
	assert.Greater(t, asked, 20)
}
