package api_test

import (
	"encoding/json"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/audio/wav"
	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/practicepage"
	"earlychorus/server/store/storetest"
)

// A model goes with what a step asks for: one for all, or one for an instrument before it.
func TestPlayersHearTheirDirectorsModel(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "MODEL")
	director, clarinet, trombone := h.director(t, b), h.player(t, b, 0), h.player(t, b, 1)
	var page practicepage.Practice
	clarinet.want(200, "GET", "/practice", nil, &page)
	step := page.Steps[0].Step
	assert.Empty(t, page.Steps[0].Model)
	parameters, err := json.Marshal(step.Parameters)
	require.NoError(t, err)
	at := func(id, of string) string {
		q := url.Values{"kind": {step.Kind}, "parameters": {string(parameters)}, "instrument": {of}}
		return "/classes/" + b.Class.ID + "/models/" + id + "?" + q.Encode()
	}
	put := func(v visitor, id, of string, file []byte) int {
		res, _ := v.ask("PUT", at(id, of), file)
		return res.StatusCode
	}
	sound := played(t, synth.Player{})
	forAll, forClarinets := newID(), newID()
	assert.Equal(t, 204, put(director, forAll, "", sound))
	assert.Equal(t, 204, put(director, forClarinets, "clarinet", sound))
	heard := func(v visitor) string {
		var page practicepage.Practice
		v.want(200, "GET", "/practice", nil, &page)
		return page.Steps[0].Model
	}
	assert.Equal(t, forClarinets, heard(clarinet))
	assert.Equal(t, forAll, heard(trombone))
	res, file := clarinet.ask("GET", "/practice/models/"+forClarinets+"/sound.wav", nil)
	assert.Equal(t, 200, res.StatusCode)
	assert.Equal(t, "RIFF", string(file[:4]))

	silence := wav.Encode(audio.Mono{Rate: 48000, Samples: make([]float64, 48000)})
	assert.Equal(t, 422, put(director, newID(), "", silence))
	assert.Equal(t, 422, put(director, newID(), "kazoo", sound))
	other := storetest.NewBand(t, h.store, "OTHERMODEL")
	res, _ = h.player(t, other, 0).ask("GET", "/practice/models/"+forAll+"/sound.wav", nil)
	assert.Equal(t, 404, res.StatusCode)
	assert.Equal(t, 404, put(h.director(t, other), newID(), "", sound))

	list := func() (out struct{ Models []api.ModelView }) {
		director.want(200, "POST", "/classes/"+b.Class.ID+"/models", step, &out)
		return out
	}
	require.Len(t, list().Models, 2)
	h.director(t, other).want(404, "DELETE", "/classes/"+b.Class.ID+"/models/"+forAll, nil, nil)
	director.want(204, "DELETE", "/classes/"+b.Class.ID+"/models/"+forClarinets, nil, nil)
	assert.Equal(t, forAll, heard(clarinet))
}
