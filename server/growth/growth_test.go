package growth_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/core/verdict"
	"earlychorus/server/growth"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// A player's weeks, days and ladders, and the section's map of the same notes.
func TestAPlayersGrowthAndTheSectionsMap(t *testing.T) {
	s := storetest.Open(t)
	b, other := storetest.NewBand(t, s, "GROW"), storetest.NewBand(t, s, "ELSE")
	rung := b.AddStep(t, s, exercise.New("ladder", map[string]any{"ladder": "clarinet-break"}))
	now := time.Now()
	day := b.Class.Day(now)
	b.Play(t, s, storetest.Played{Step: rung, At: day.Add(9 * time.Hour), Result: verdict.Clean})
	b.Play(t, s, storetest.Played{Step: b.Step, At: day.Add(10 * time.Hour), Result: verdict.NotYet})
	require.NoError(t, s.AddLadderEntry(t.Context(), store.LadderEntry{
		PlayerID: b.Players[0].ID,
		Ladder:   "clarinet-break",
		What:     ladder.Placed,
		Day:      day,
		Rung:     2,
		At:       now,
	}))

	page, err := growth.Of(t.Context(), s, b.Class, b.Players[0].ID, 4, day)
	require.NoError(t, err)
	assert.Equal(t, "Ada Testerly", page.Player.Name)
	assert.Equal(t, []string{day.Format(time.DateOnly)}, page.Days)
	require.NotEmpty(t, page.Notes)
	assert.Equal(t, 2, page.Notes[0].Takes)
	assert.NotRegexp(t, `[0-9]`, page.Notes[0].Called)
	require.Len(t, page.Weeks, 1)
	assert.Equal(t, store.Monday(day).Format(time.DateOnly), page.Weeks[0].Monday)
	require.Len(t, page.Ladders, 1)
	assert.Equal(t, 2, page.Ladders[0].Rung)
	_, err = growth.Of(t.Context(), s, other.Class, b.Players[0].ID, 4, day)
	assert.ErrorIs(t, err, store.ErrNotFound, "a player of another class")

	section, err := growth.SectionOf(t.Context(), s, b.Class, "Clarinets", 14, day)
	require.NoError(t, err)
	assert.Equal(t, []string{"Clarinets", "Trombones"}, section.Sections)
	require.Len(t, section.Maps, 1)
	require.Len(t, section.Maps[0].Notes, 1)
	note := section.Maps[0].Notes[0]
	assert.Equal(t, "C4", note.Written)
	assert.Equal(t, 2, note.Takes)
	require.Len(t, section.Ladders, 1)
	assert.Equal(t, 2, section.Ladders[0].On[0].Rung)
	_, err = growth.SectionOf(t.Context(), s, b.Class, "Harps", 14, day)
	assert.ErrorIs(t, err, store.ErrNotFound)
}
