package api_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/store/storetest"
)

// FLAC is taken where WAV is: unpacked, judged alike, and the same file again is the same
// take.
func TestFLACIsTakenWhereWAVIs(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	player := h.player(t, b, 0)
	sound, err := wav.Decode(bytes.NewReader(played(t, synth.Player{})), 0)
	require.NoError(t, err)
	packed, err := flac.Encode(sound)
	require.NoError(t, err)
	require.Less(t, len(packed), 2*len(sound.Samples), "it is smaller")

	id := newID()
	status, answer := player.upload(b, id, "file", 1, packed)
	require.Equal(t, 201, status, answer)
	assert.Equal(t, verdict.Clean, player.heard(id).Verdict.Result)
	status, _ = player.upload(b, id, "file", 1, packed)
	assert.Equal(t, 200, status, "again is answered the same")

	status, answer = player.upload(b, newID(), "file", 1, packed[:len(packed)/2])
	assert.Equal(t, 422, status)
	assert.Contains(t, answer, "FLAC")
}
