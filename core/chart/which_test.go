package chart_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/chart"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

func found(t *testing.T, key string, note music.MIDI, off music.Cents, asked music.MIDI) chart.Found {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	c := exercise.StandardConventions()
	return chart.Which(i, c, off.Above(note.Frequency(c.A4)), asked)
}

// A player hears the name of what came, where it stands, and how it is tuned: the written
// note, never the sounding one.
func TestWhichNoteThatIs(t *testing.T) {
	clarinet := found(t, "clarinet", 58, -14, 0) // concert B flat: written C4
	assert.Equal(t, "C", clarinet.Written.Step)
	assert.Equal(t, "low C", clarinet.Called, "C is in its book three times")
	assert.Equal(t, "on the first short line below the staff", clarinet.Place)
	assert.Equal(t, "a little flat", clarinet.Tune)
	assert.InDelta(t, -14, float64(clarinet.Cents), 1)
	assert.Empty(t, clarinet.Open)

	trumpet := found(t, "trumpet", 65, 3, 0) // written G4, open
	assert.Equal(t, "second line", trumpet.Place)
	assert.Equal(t, "open note 2, from the lowest", trumpet.Open)
	assert.Equal(t, "in tune", trumpet.Tune)
	assert.Equal(t, "partial 3 of its tube", found(t, "trumpet", 63, 0, 0).Open, "F: valve 1")

	trombone := found(t, "trombone", 58, 30, 0)
	assert.Equal(t, "just above the staff", trombone.Place)
	assert.Equal(t, "sharp", trombone.Tune)
}

// Who looked for one note and found another is told by the finger.
func TestAnotherNoteIsMendedByTheFinger(t *testing.T) {
	wrong := found(t, "trumpet", 61, 0, 60)
	assert.False(t, wrong.Right)
	assert.NotEmpty(t, wrong.Mend)
	assert.True(t, found(t, "trumpet", 60, 8, 60).Right)
}

func TestPlacesOnBothStaves(t *testing.T) {
	places := map[music.MIDI]string{
		57: "on the second short line below the staff",
		62: "just below the staff",
		64: "first line",
		65: "first space",
		77: "fifth line",
		79: "just above the staff",
		81: "on the first short line above the staff",
	}
	for note, says := range places {
		assert.Equal(t, says, found(t, "flute", note, 0, 0).Place, note)
	}
	assert.Equal(t, "second line", found(t, "tuba", 47, 0, 0).Place)
}
