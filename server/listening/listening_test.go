package listening_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/progress"
	"earlychorus/core/verdict"
	"earlychorus/server/listening"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// What was chosen stays chosen through the day, for every device; afresh it is
// chosen anew, without what was heard meanwhile.
func TestAListeningIsGoneOnWith(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "EARS")
	now := time.Now()
	at := b.Class.Day(now).Add(9 * time.Hour)
	bad := b.Play(t, s, storetest.Played{
		Step:   b.Step,
		At:     at,
		Result: verdict.NotYet,
		Cut:    progress.Cut{From: 1, To: 4},
	})
	ask := listening.Ask{Director: b.Director.ID, Class: b.Class, Minutes: 5}
	page, err := listening.Of(t.Context(), s, ask, now)
	require.NoError(t, err)
	require.Len(t, page.Excerpts, 1)
	e := page.Excerpts[0]
	assert.Equal(t, bad, e.Take)
	assert.Equal(t, "Ada Testerly", e.Name)
	assert.NotEmpty(t, e.Why)
	assert.True(t, e.HasSound)

	b.Play(t, s, storetest.Played{
		Player: 1,
		Step:   b.Step,
		At:     at,
		Result: verdict.NotYet,
		Cut:    progress.Cut{From: 1, To: 4},
	})
	require.NoError(t, s.KeepPlace(t.Context(), store.Listening{
		DirectorID: b.Director.ID,
		ClassID:    b.Class.ID,
		Day:        b.Class.Day(now),
		Place:      1,
		SpentS:     20,
	}, bad, now))
	page, err = listening.Of(t.Context(), s, ask, now)
	require.NoError(t, err)
	assert.Len(t, page.Excerpts, 1, "what comes in meanwhile waits")
	assert.Equal(t, 1, page.Place)

	ask.Afresh = true
	page, err = listening.Of(t.Context(), s, ask, now)
	require.NoError(t, err)
	require.Len(t, page.Excerpts, 1)
	assert.Equal(t, "Bo Testerly", page.Excerpts[0].Name)
}
