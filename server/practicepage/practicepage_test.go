package practicepage_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/core/verdict"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
	"earlychorus/server/view"
)

// The page is worked out for one player: their own rung, their own best, what was done
// today, what is not for the instrument left out; the week ahead stands on the same
// rung.
func TestThePageIsThePlayersOwn(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "PAGE")
	b.AddStep(t, s, exercise.New("ladder", map[string]any{"ladder": "clarinet-break"}))
	longest := b.AddStep(t, s, exercise.New(exercise.KindLongToneLongest, map[string]any{"cap_s": 12}))
	b.AddStep(t, s, exercise.New("buzz-at-once", nil))
	now := time.Now()
	day := b.Class.Day(now)
	require.NoError(t, s.AddLadderEntry(t.Context(), store.LadderEntry{
		PlayerID: b.Players[0].ID,
		Ladder:   "clarinet-break",
		What:     ladder.Placed,
		Day:      day,
		Rung:     3,
		At:       now,
	}))
	b.Play(t, s, storetest.Played{
		Step:   longest,
		At:     day.Add(14 * time.Hour),
		Result: verdict.Nearly,
		Notes:  []store.TakeNote{{Sounding: 58, Held: 9}},
	})
	b.Play(t, s, storetest.Played{Step: longest, At: day.Add(15 * time.Hour), Result: verdict.NotYet})
	waiting := b.Play(t, s, storetest.Played{Step: b.Step, At: day.Add(16 * time.Hour)})

	p, err := s.Player(t.Context(), b.Players[0].ID)
	require.NoError(t, err)
	page, err := practicepage.Of(t.Context(), s, p, now)
	require.NoError(t, err)
	require.Len(t, page.Steps, 3, "a clarinet does not buzz")
	tone, rung, hold := page.Steps[0], page.Steps[1], page.Steps[2]
	assert.Equal(t, waiting, tone.Takes[0].ID)
	assert.Equal(t, view.Waiting, tone.Takes[0].State)
	assert.Empty(t, tone.Result)
	assert.Equal(t, 3, rung.Score.Rung)
	assert.Equal(t, 3, rung.Ladder.Rung)
	assert.InDelta(t, 9, hold.Best, 1e-6)
	assert.Zero(t, tone.Best, "only where it matters")
	assert.Equal(t, verdict.Nearly, hold.Result, "the best of today")
	assert.Len(t, hold.Takes, 2)
	assert.Equal(t, "Ada T.", page.Player)

	week, err := practicepage.WeekAhead(t.Context(), s, p, now)
	require.NoError(t, err)
	assert.Len(t, week.Days, 8)
	for _, d := range week.Days {
		for _, step := range d.Steps {
			if step.Ladder != nil {
				assert.Equal(t, 3, step.Score.Rung, d.Day)
			}
		}
	}
}
