package api_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"earlychorus/core/instrument"
	"earlychorus/core/roster"
	"earlychorus/core/scores"
	"earlychorus/server/api"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// BenchmarkPreview is what one edit of a plan asks for: a day of twelve steps
// added up for 70 players on 16 instruments, over the API with its database. It
// is to stay under 100 ms.
func BenchmarkPreview(b *testing.B) {
	h := newServer(b)
	band := storetest.NewBand(b, h.store, "BENCH")
	var players []store.Player
	for n := range 68 {
		keys := instrument.Keys()
		players = append(players, store.Player{
			ID:      newID(),
			ClassID: band.Class.ID,
			Person: roster.Person{
				FirstName:  fmt.Sprintf("Player%d", n),
				Instrument: keys[n%len(keys)],
				Stage:      scores.Stage(1 + n%3),
			},
		})
	}
	require.NoError(b, h.store.SaveRoster(b.Context(), players, nil))
	director := h.director(b, band)
	var items []api.PlanItem
	for _, kind := range []string{
		"set-up", "breath-pattern", "air-then-buzz", "buzz-at-once", "tuning-note", "long-tone-counted",
		"swell", "starts-and-ends", "register-pair", "slur-across-partials", "five-note-walk", "scale",
	} {
		items = append(items, planItem(kind, nil))
	}
	day := map[string]any{"items": items, "at": "class", "minutes": 0}
	b.ResetTimer()
	for b.Loop() {
		director.want(200, "POST", "/classes/"+band.Class.ID+"/days/work", day, nil)
	}
}

// BenchmarkFitDay is the same day fitted into its minutes.
func BenchmarkFitDay(b *testing.B) {
	h := newServer(b)
	band := storetest.NewBand(b, h.store, "BENCH")
	director := h.director(b, band)
	var items []api.PlanItem
	for _, kind := range []string{
		"breath-pattern", "buzz-at-once", "long-tone-counted", "swell", "register-pair", "five-note-walk",
		"scale",
	} {
		items = append(items, planItem(kind, nil))
	}
	day := map[string]any{"items": items, "at": "class", "minutes": 4}
	for b.Loop() {
		director.want(200, "POST", "/classes/"+band.Class.ID+"/days/fit", day, nil)
	}
}
