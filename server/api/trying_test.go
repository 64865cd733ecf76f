package api_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/consent"
	"earlychorus/server/api"
	"earlychorus/server/store/storetest"
)

// A director sees what a player of any instrument would; nobody is made for it.
func TestAPlayersPageIsTriedOut(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "TRYING")
	director := h.director(t, b)
	for _, key := range []string{"flute", "percussion", "none-yet"} {
		var out api.TrialPage
		director.want(200, "GET", "/classes/"+b.Class.ID+"/try/"+key, nil, &out)
		assert.Empty(t, out.Practice.PlayerID)
		assert.Equal(t, consent.May{}, out.Practice.May)
		assert.NotEmpty(t, out.Practice.StandIns)
		if key == "flute" {
			require.NotEmpty(t, out.Practice.Steps)
		}
	}
	director.want(404, "GET", "/classes/"+b.Class.ID+"/try/kazoo", nil, nil)
	h.director(t, storetest.NewBand(t, h.store, "NOTTRYING")).want(
		404, "GET", "/classes/"+b.Class.ID+"/try/flute", nil, nil,
	)
	var set api.ClassSetUp
	director.want(200, "GET", "/classes/"+b.Class.ID+"/set-up", nil, &set)
	assert.Len(t, set.Players, 2)
}
