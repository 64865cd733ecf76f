package exercise_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

// A band tunes in the first register: concert A is A4 for flute and oboe, and the octave
// below for horn, clarinets and saxophones (common practice, no published source).
func TestABandTunesInItsFirstRegister(t *testing.T) {
	c := exercise.StandardConventions()
	for note, sounding := range map[exercise.TuningNote]map[string]music.MIDI{
		"A":  {"flute": 69, "oboe": 69, "clarinet": 57, "horn": 57, "alto-sax": 57, "trumpet": 69, "trombone": 57},
		"Bb": {"flute": 70, "clarinet": 58, "alto-sax": 58, "trumpet": 58, "tuba": 34},
	} {
		c.TuningNote = note
		for _, i := range instrument.All() {
			score, err := exercise.New(exercise.KindTuningNote, nil).Score(exercise.Player{Instrument: i, Stage: 2}, c)
			require.NoError(t, err)
			got := score.Targets()[0].Target
			if want, ok := sounding[i.Key]; ok {
				assert.Equal(t, want, got, "%s on %s", note, i.Key)
			}
			lower := got - 12
			assert.True(
				t,
				i.IsEarly(got) || !i.IsEarly(lower),
				"%s on %s: %d, and %d is easier",
				note,
				i.Key,
				got,
				lower,
			)
		}
	}
}
