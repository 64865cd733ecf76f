package known_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/known"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// A note is new for the week it was given in, and known after it.
func TestANoteIsNewForAWeek(t *testing.T) {
	trumpet, err := instrument.Get("trumpet")
	require.NoError(t, err)
	home := trumpet.Home()
	b := known.Book{}
	assert.Len(t, b.Of(trumpet), 5)
	b.Notes = map[string][]known.Note{
		"trumpet": append(b.Of(trumpet), known.Note{Sounding: home + 9, Week: "2026-11-30"}),
	}
	require.NoError(t, b.Check())
	for on, state := range map[string]known.State{
		"2026-11-23": known.Later,
		"2026-11-30": known.New,
		"2026-12-07": known.Known,
	} {
		assert.Equal(t, state, b.Notes["trumpet"][5].In(on), on)
	}
	knows, fresh := b.For(trumpet, known.Own{}, "2026-11-30")
	assert.Len(t, knows, 5)
	assert.Equal(t, []music.MIDI{home + 9}, fresh)
	knows, fresh = b.For(trumpet, known.Own{Ahead: []music.MIDI{home + 9}, Behind: []music.MIDI{home}}, "2026-11-30")
	assert.Equal(t, home+9, knows[4])
	assert.NotContains(t, knows, home)
	assert.Empty(t, fresh)
	// A note of another instrument asks for nothing, and who knows none plays home.
	knows, _ = b.For(trumpet, known.Own{Ahead: []music.MIDI{trumpet.Beginner.To + 1}}, "2026-11-30")
	assert.Len(t, knows, 5)
	knows, _ = b.For(trumpet, known.Own{Behind: trumpet.FirstFive[:]}, "2026-11-30")
	assert.Equal(t, []music.MIDI{home}, knows)
	b.ByStage = true
	knows, _ = b.For(trumpet, known.Own{}, "2026-11-30")
	assert.Nil(t, knows)
}

// A pattern keeps to the notes that are known, and the new note has a step of its own, on
// every instrument.
func TestPatternsKeepToKnownNotes(t *testing.T) {
	scale := exercise.New("scale", nil)
	learn := exercise.New(exercise.KindNewNote, nil)
	c := exercise.StandardConventions()
	for _, i := range instrument.All() {
		first := i.FirstFive[:]
		next := exercise.NextNotes(i, first)[0]
		who := exercise.Player{Instrument: i, Stage: 3, Known: first}
		s, err := scale.Score(who, c)
		require.NoError(t, err, i.Key)
		for _, seg := range s.Targets() {
			assert.Contains(t, first, seg.Target, i.Key)
		}
		assert.Contains(t, strings.Join(s.Notices, " "), "the notes known so far", i.Key)
		_, err = learn.Score(who, c)
		assert.ErrorIs(t, err, exercise.ErrNotFor, i.Key)

		who.New = []music.MIDI{next}
		s, err = learn.Score(who, c)
		require.NoError(t, err, i.Key)
		heard, fingered := false, false
		for _, seg := range s.Segments {
			heard = heard || seg.Phase == scores.Listen && seg.Target == next
			fingered = fingered || seg.Phase == scores.Finger && seg.Target == next
			assert.Equal(t, seg.Target == next, seg.New, i.Key)
		}
		assert.True(t, heard && fingered, i.Key)
	}
}

func TestABookThatCannotBeKept(t *testing.T) {
	five := func(n ...known.Note) map[string][]known.Note {
		return map[string][]known.Note{"flute": append(n, known.Note{Sounding: 70}, known.Note{Sounding: 72})}
	}
	for why, b := range map[string]known.Book{
		"no instrument": {Notes: map[string][]known.Note{"kazoo": nil}},
		"beginner":      {Notes: five(known.Note{Sounding: 20})},
		"as 2026":       {Notes: five(known.Note{Sounding: 74, Week: "next week"})},
		"two notes":     {Notes: map[string][]known.Note{"flute": {{Sounding: 70}}}},
		"two new": {Notes: five(
			known.Note{Sounding: 74, Week: "2026-11-30"},
			known.Note{Sounding: 75, Week: "2026-11-30"},
			known.Note{Sounding: 77, Week: "2026-11-30"},
		)},
	} {
		assert.ErrorContains(t, b.Check(), why)
	}
}
