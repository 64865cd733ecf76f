package api_test

import (
	"encoding/csv"
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/consent"
	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/store/storetest"
)

// consents has a director write one home's answers down.
func (v visitor) consents(b storetest.Band, player int, answers map[consent.Purpose]bool) (out api.ClassConsents) {
	v.t.Helper()
	said := []api.ConsentAnswer{}
	for p, given := range answers {
		said = append(said, api.ConsentAnswer{Player: b.Players[player].ID, Purpose: p, Given: given})
	}
	v.want(
		200,
		"PUT",
		"/classes/"+b.Class.ID+"/consents",
		map[string]any{"by": "form of 3 September", "answers": said},
		&out,
	)
	return out
}

// Without consent a player practices, and nothing is kept; with it everything goes on.
func TestWithoutConsentNothingIsKept(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "CONSENT")
	director, ada := h.director(t, b), h.player(t, b, 0)
	var page struct {
		May consent.May `json:"may"`
	}
	ada.want(200, "GET", "/practice", nil, &page)
	assert.Equal(t, consent.May{Record: true, Keep: true, Show: true}, page.May, "nobody asks")
	director.want(200, "PUT", "/schools/"+b.Class.SchoolID+"/consent", map[string]bool{"needed": true}, nil)
	ada.want(200, "GET", "/practice", nil, &page)
	assert.Equal(t, consent.May{}, page.May)
	sound := played(t, synth.Player{})
	status, said := ada.upload(b, newID(), "microphone", 1, sound)
	assert.Equal(t, 409, status)
	assert.Contains(t, said, "nothing is kept")
	res, _ := ada.ask("PUT", "/takes/"+newID()+"/parts/0", sound[:1000])
	assert.Equal(t, 409, res.StatusCode)
	res, _ = ada.ask("POST", "/takes/"+newID()+"/simulated", map[string]any{
		"step": b.Step.ID, "version": 1, "stand_in": "steady",
	})
	assert.Equal(t, 409, res.StatusCode)
	assert.Empty(t, h.files())

	all := director.consents(b, 0, map[consent.Purpose]bool{"recording": true, "keeping": true, "showing": true})
	assert.Equal(t, 3, all.Changed)
	for _, p := range all.Players {
		assert.Equal(t, p.ID == b.Players[0].ID, p.May.Record, p.Name)
	}
	status, _ = ada.upload(b, newID(), "microphone", 1, sound)
	assert.Equal(t, 201, status)
}

// A home that agrees to recording and not to keeping: the take is heard, and its sound goes.
func TestARecordingThatMayNotBeKeptIsHeardAndGoes(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "HEARDONLY")
	director, ada := h.director(t, b), h.player(t, b, 0)
	director.consents(b, 0, map[consent.Purpose]bool{"keeping": false})
	take := ada.playedAs(b, synth.Player{})
	gone := func(id string) func() bool {
		return func() bool {
			var shown api.TakeDetail
			director.want(200, "GET", "/takes/"+id, nil, &shown)
			return shown.SoundGone && shown.Verdict != nil
		}
	}
	require.Eventually(t, gone(take.ID), time.Minute, 20*time.Millisecond)
	require.Eventually(t, func() bool { return len(h.files()) == 0 }, time.Minute, 20*time.Millisecond)

	// Taken back later, what was kept goes now; the other's stays.
	bo := h.player(t, b, 1)
	kept := bo.playedAs(b, synth.Player{})
	director.consents(b, 0, map[consent.Purpose]bool{"keeping": true})
	second := ada.playedAs(b, synth.Player{})
	require.Len(t, h.files(), 2)
	director.consents(b, 0, map[consent.Purpose]bool{"recording": false})
	require.Eventually(t, gone(second.ID), time.Minute, 50*time.Millisecond)
	var shown api.TakeDetail
	director.want(200, "GET", "/takes/"+kept.ID, nil, &shown)
	assert.False(t, shown.SoundGone)
	director.want(200, "GET", "/takes/"+second.ID, nil, &shown)
	assert.True(t, shown.Private)
}

// Consents come in as a list, and go out as one that can be brought in again.
func TestConsentsAreLists(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "FORMS")
	director := h.director(t, b)
	class := "/classes/" + b.Class.ID
	bring := func(file string) (int, api.ClassConsents, string) {
		res, said := director.ask("POST", class+"/consents/list", []byte(file))
		var out api.ClassConsents
		_ = json.Unmarshal(said, &out) // a refusal is looked at by its words
		return res.StatusCode, out, string(said)
	}
	status, out, said := bring(
		"Name,Recording,Showing,By\nAda Testerly,yes,no,Mrs. Testerly\nWho Else,yes,yes,\nBo Testerly,,x,\n",
	)
	require.Equal(t, 200, status, said)
	assert.Equal(t, []string{"Who Else"}, out.Unknown)
	assert.Equal(t, 3, out.Changed)
	assert.Equal(t, consent.May{Record: true, Keep: true}, out.Players[0].May)
	assert.Equal(t, "Mrs. Testerly", out.Players[0].Said["recording"].By)

	res, file := director.ask("GET", class+"/consents.csv", nil)
	require.Equal(t, 200, res.StatusCode)
	lines, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(string(file), "\ufeff"))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"Ada", "Testerly", "", "yes", "", "no", "Mrs. Testerly"}, lines[1][:7])
	status, again, said := bring(string(file))
	require.Equal(t, 200, status, said)
	assert.Equal(t, out.Players[0].May, again.Players[0].May)

	status, _, said = bring("Name,Recording\nAda Testerly,perhaps\n")
	assert.Equal(t, 422, status)
	assert.Contains(t, said, "Line 2")
	status, _, _ = bring("Name,Instrument\nAda Testerly,flute\n")
	assert.Equal(t, 422, status)
	other := storetest.NewBand(t, h.store, "OTHERFORMS")
	director.want(404, "PUT", class+"/consents", map[string]any{"by": "x", "answers": []map[string]any{
		{"player": other.Players[0].ID, "purpose": "recording", "given": true},
	}}, nil)
}

// The database's rule is the core's, for every answer there can be.
func TestConsentIsOneRule(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "ONERULE")
	director := h.director(t, b)
	for _, needed := range []bool{false, true} {
		director.want(200, "PUT", "/schools/"+b.Class.SchoolID+"/consent", map[string]bool{"needed": needed}, nil)
		for n := range 27 {
			_, err := h.store.SQL().Exec("DELETE FROM consent")
			require.NoError(t, err)
			said := map[consent.Purpose]bool{}
			for k, p := range consent.Purposes() {
				if answer := n / []int{1, 3, 9}[k] % 3; answer > 0 {
					said[p.Key] = answer == 1
				}
			}
			director.consents(b, 0, said)
			may, err := h.store.MayOf(t.Context(), b.Players[0].ID)
			require.NoError(t, err)
			assert.Equal(t, consent.Of(said, needed), may, "%v %v", needed, said)
		}
	}
}

// A "no" that comes while old recordings are being let go of is not taken for that: the run may be
// past it.
func TestARefusalIsNotSwallowedByARunUnderWay(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "UNDERWAY")
	count := func() (n int) { // the daily one, which names nothing, may come at any moment
		require.NoError(t, h.store.SQL().QueryRow(
			"SELECT count(*) FROM river_job WHERE kind = 'let_go' AND args ? 'for'",
		).Scan(&n))
		return n
	}
	director := h.director(t, b)
	for range 2 {
		director.consents(b, 0, map[consent.Purpose]bool{"keeping": false})
	}
	assert.Equal(t, 2, count())
}
