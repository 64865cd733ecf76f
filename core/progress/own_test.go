package progress_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"earlychorus/core/music"
	"earlychorus/core/progress"
)

// A note counts as one's own by how it comes now: bad weeks at first are forgotten, and one
// lucky take among many is not enough.
func TestANoteIsOnesOwnWhenItComesNow(t *testing.T) {
	var played []progress.Played
	play := func(note music.MIDI, goods ...bool) {
		for _, good := range goods {
			played = append(played, progress.Played{Sounding: note, Good: good})
		}
	}
	play(60, false, false, false, false, true, true, true)
	play(58, true)
	play(65, false, false, true, false)
	play(67, true, true, true, false, false, false, false)
	assert.Equal(t, []progress.OwnNote{
		{58, 1, 1, true},
		{60, 7, 3, true},
		{65, 4, 1, false},
		{67, 7, 3, false},
	}, progress.OwnNotes(played))
	assert.Empty(t, progress.OwnNotes(nil))
}
