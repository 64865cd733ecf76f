package api_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/known"
	"earlychorus/core/music"
	"earlychorus/server/api"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// The notes a class knows are what its players' patterns are made of; a new note has a step of
// its own, for those to whom it is new.
func TestANewNoteReachesThePlayersItIsFor(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "FRESH") // a clarinet and a trombone
	b.AddStep(t, h.store, exercise.New("five-note-walk", nil))
	b.AddStep(t, h.store, exercise.New(exercise.KindNewNote, nil))
	director, clarinet, trombone := h.director(t, b), h.player(t, b, 0), h.player(t, b, 1)
	monday := store.Monday(b.Class.Day(time.Now())).Format(time.DateOnly)
	path := "/classes/" + b.Class.ID + "/weeks/" + monday + "/known"

	var class api.KnownNotes
	director.want(200, "GET", path, nil, &class)
	require.Len(t, class.Instruments, 2)
	assert.False(t, class.ByStage)
	knows := []known.Note{}
	for _, n := range class.Instruments[0].Notes {
		if n.State == known.Known {
			knows = append(knows, known.Note{Sounding: n.Sounding})
		}
	}
	require.Len(t, knows, 5, "the first five at the start")
	next := class.Instruments[0].Next
	steps := func(v visitor) (out []practicepage.PracticeStep) {
		var page practicepage.Practice
		v.want(200, "GET", "/practice", nil, &page)
		return page.Steps
	}
	assert.Len(t, steps(clarinet), 2, "nothing is new yet")

	book := known.Book{Notes: map[string][]known.Note{
		"clarinet": append(knows, known.Note{Sounding: next, Week: monday}),
	}}
	director.want(200, "PUT", path, book, &class)
	assert.NotEqual(t, next, class.Instruments[0].Next)
	learns := steps(clarinet)
	require.Len(t, learns, 3)
	assert.Len(t, steps(trombone), 2)
	var fresh []music.MIDI
	for _, seg := range learns[2].Score.Targets() {
		if seg.New {
			fresh = append(fresh, seg.Target)
		}
	}
	assert.Contains(t, fresh, next)

	// One player is behind: a note of the pattern is not asked for, and the pattern says so.
	own := "/classes/" + b.Class.ID + "/players/" + b.Players[0].ID + "/known"
	var differs api.PlayerKnows
	director.want(200, "PUT", own, known.Own{Behind: []music.MIDI{knows[4].Sounding}}, &differs)
	assert.Equal(t, []music.MIDI{knows[4].Sounding}, differs.Own.Behind)
	for _, seg := range steps(clarinet)[1].Score.Targets() {
		assert.NotEqual(t, knows[4].Sounding, seg.Target)
	}

	// An instrument that is left out keeps its notes; a week has one name.
	director.want(200, "PUT", path, known.Book{Notes: map[string][]known.Note{"trombone": {
		{Sounding: 46},
		{Sounding: 48},
	}}}, &class)
	at := slices.IndexFunc(class.Instruments[0].Notes, func(n api.KnownNote) bool { return n.Sounding == next })
	assert.Equal(t, known.New, class.Instruments[0].Notes[at].State)
	director.want(422, "PUT", path, known.Book{Notes: map[string][]known.Note{
		"clarinet": append(knows, known.Note{Sounding: next, Week: "2026-12-01"}),
	}}, nil)
	director.want(422, "PUT", own, known.Own{Ahead: []music.MIDI{1}}, nil)
	director.want(422, "PUT", path, known.Book{Notes: map[string][]known.Note{"kazoo": knows}}, nil)
	stranger := storetest.NewBand(t, h.store, "STRANGE")
	h.director(t, stranger).want(404, "PUT", path, book, nil)
	h.director(t, stranger).want(404, "GET", own, nil, nil)
	clarinet.want(404, "GET", path, nil, nil)
}
