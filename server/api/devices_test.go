package api_test

import (
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/ladder"
	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// sendParts hands a file in as a device over a weak network does: parts out of
// order, one twice, then the seal, twice.
func (v visitor) sendParts(id string, file []byte, query string) (first, second int) {
	v.t.Helper()
	const part = 100_000
	var offsets []int
	for at := 0; at < len(file); at += part {
		offsets = append(offsets, at)
	}
	offsets = append([]int{offsets[len(offsets)-1]}, offsets...)
	for _, at := range offsets {
		v.want(200, "PUT", fmt.Sprintf("/takes/%s/parts/%d", id, at), file[at:min(at+part, len(file))], nil)
	}
	path := fmt.Sprintf("/takes/%s/seal?size=%d&%s", id, len(file), query)
	a, answer := v.ask("POST", path, nil)
	require.Less(v.t, a.StatusCode, 300, string(answer))
	b, _ := v.ask("POST", path, nil)
	return a.StatusCode, b.StatusCode
}

func TestATakeArrivesInPartsOnce(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "PARTS")
	player := h.player(t, b, 0)
	file, id := played(t, synth.Player{Offset: -40}), newID()
	query := fmt.Sprintf("step=%s&version=1&source=microphone&start_ms=0&heard=clean", b.Step.ID)

	var have api.Received
	player.want(200, "PUT", "/takes/"+id+"/parts/0", file[:50_000], &have)
	assert.Equal(t, int64(50_000), have.Bytes)
	player.want(409, "POST", fmt.Sprintf("/takes/%s/seal?size=%d&%s", id, len(file), query), nil, nil)
	player.want(200, "GET", "/takes/"+id+"/received", nil, &have)
	assert.Equal(t, api.Received{Bytes: 50_000}, have)
	classmate := h.player(t, b, 1)
	classmate.want(200, "GET", "/takes/"+id+"/received", nil, &have)
	assert.Zero(t, have.Bytes, "a classmate's device sees nothing of it")

	first, second := player.sendParts(id, file, query)
	assert.Equal(t, []int{201, 200}, []int{first, second})
	player.want(200, "GET", "/takes/"+id+"/received", nil, &have)
	assert.True(t, have.Safe)
	left, err := filepath.Glob(filepath.Join(h.folder, "parts", "*", "*", "*"))
	require.NoError(t, err)
	assert.Empty(t, left, "the parts are gone")

	take := player.heard(id)
	assert.Equal(t, "clean", string(take.Device))
	assert.NotEqual(t, take.Device, take.Verdict.Result, "the device was wrong, and it is counted")
	var setUp api.ClassSetUp
	h.director(t, b).want(200, "GET", "/classes/"+b.Class.ID+"/set-up", nil, &setUp)
	assert.Equal(t, store.DeviceWord{Takes: 1, Differ: 1}, setUp.Device)
}

func TestPartsAreChecked(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "PARTS")
	player := h.player(t, b, 0)
	id := newID()
	player.want(422, "PUT", "/takes/"+id+"/parts/-1", []byte{1}, nil)
	player.want(422, "PUT", "/takes/nonsense/parts/0", []byte{1}, nil)
	player.want(413, "PUT", "/takes/"+id+"/parts/0", make([]byte, 2<<20), nil)
	query := "step=" + b.Step.ID + "&version=1&source=microphone"
	player.want(422, "POST", "/takes/"+id+"/seal?"+query, nil, nil)
	for _, wrong := range []string{"rung=x", "tempo=-1", "ago_ms=-5", "best_ms=1e9", "heard=splendid"} {
		player.want(422, "POST", "/takes/"+id+"/seal?size=10&"+query+"&"+wrong, nil, nil)
	}
	player.want(200, "PUT", "/takes/"+id+"/parts/0", []byte("no sound at all"), nil)
	player.want(415, "POST", "/takes/"+id+"/seal?size=15&"+query, nil, nil)
	require.NoError(t, os.MkdirAll(filepath.Join(h.folder, "parts", "x"), 0o700)) // somebody's own folder is no part
	player.want(200, "GET", "/takes/"+id+"/received", nil, nil)
}

// A take that was played three days ago on another rung and at another tempo is
// judged as it was played, and counts for its day.
func TestALateTakeCountsAsItWasPlayed(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "LATE")
	step := b.AddStep(t, h.store, exercise.New("ladder", map[string]any{"ladder": "clarinet-break", "tempo_bpm": 100}))
	player := h.player(t, b, 0)
	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	require.NotNil(t, practice.Steps[1].Tempi)
	assert.Equal(t, 80., float64(practice.Steps[1].Tempi.From))

	id, ago := newID(), 3*24*time.Hour
	query := fmt.Sprintf(
		"step=%s&version=1&source=microphone&start_ms=0&rung=4&tempo=90&ago_ms=%d",
		step.ID,
		ago.Milliseconds(),
	)
	player.sendParts(id, played(t, synth.Player{}), query)
	take := player.heard(id)
	assert.Equal(t, 4, take.Score.Rung)
	assert.Equal(t, 90., float64(take.Score.TempoBPM))
	assert.Equal(t, b.Class.Day(time.Now().Add(-ago)).Format(time.DateOnly), take.Day)
	player.want(
		422,
		"PUT",
		fmt.Sprintf("/takes/%s?step=%s&version=1&source=microphone&tempo=10", newID(), step.ID),
		played(t, synth.Player{}),
		nil,
	)

	// What happened first counts first, whenever it was heard of.
	at := func(ago time.Duration, what ladder.Happening, rung int) store.LadderEntry {
		when := time.Now().Add(-ago).UTC()
		return store.LadderEntry{
			PlayerID: b.Players[0].ID,
			Ladder:   "bassoon-low",
			What:     what,
			Day:      b.Class.Day(when),
			Rung:     rung,
			At:       when,
		}
	}
	require.NoError(t, h.store.AddLadderEntry(t.Context(), at(time.Hour, ladder.Placed, 2)))
	require.NoError(t, h.store.AddLadderEntry(t.Context(), at(2*time.Hour, ladder.Placed, 5)))
	p, err := h.store.Player(t.Context(), b.Players[0].ID)
	require.NoError(t, err)
	states, err := h.store.LaddersOf(t.Context(), p)
	require.NoError(t, err)
	assert.Equal(t, 2, states["bassoon-low"].Rung)
}

// A device is given what it needs to go on alone: the days ahead and a key, the
// same one each time, and nobody else's.
func TestADeviceIsMadeReady(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "READY")
	ada, bo := h.player(t, b, 0), h.player(t, b, 1)
	var week practicepage.PracticeWeek
	ada.want(200, "GET", "/practice/week", nil, &week)
	require.NotEmpty(t, week.Days)
	assert.Equal(t, b.Class.Day(time.Now()).AddDate(0, 0, 1).Format(time.DateOnly), week.Days[0].Day)
	key := func(v visitor) []byte {
		var out struct{ Key []byte }
		v.want(200, "GET", "/practice/key", nil, &out)
		return out.Key
	}
	assert.Len(t, key(ada), 32)
	assert.Equal(t, key(ada), key(ada))
	assert.NotEqual(t, key(ada), key(bo))
	h.visitor(t).want(401, "GET", "/practice/key", nil, nil)
	var me api.Me
	ada.want(200, "GET", "/me", nil, &me)
	assert.Equal(t, b.Players[0].ID, me.ID)

	id := newID()
	status, _ := ada.upload(b, id, "microphone", 1, played(t, synth.Player{}))
	require.Equal(t, http.StatusCreated, status)
	ada.heard(id)
	res, _ := ada.ask("GET", "/takes/"+id+"/audio.wav", nil)
	assert.Equal(t, "no-store", res.Header.Get("Cache-Control"), "the next player at this laptop finds no sound")
	var practice practicepage.Practice
	ada.want(200, "GET", "/practice", nil, &practice)
	assert.Len(t, practice.Steps[0].Recent, 1)
	assert.Equal(t, "clarinet", practice.Setting.Instrument)
}
