package api_test

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio/flac"
	"earlychorus/core/audio/wav"
	"earlychorus/core/ear"
	"earlychorus/core/measure"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/api"
	"earlychorus/server/board"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// The whole loop without a browser: a step, a take, the board, the director's
// word, and back to the player.
func TestFromTheStepToTheDirectorsWord(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director, player := h.director(t, b), h.player(t, b, 0)

	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	assert.Equal(t, "Ada T.", practice.Player)
	require.NotEmpty(t, practice.Steps)
	assert.Equal(t, "C4", practice.Steps[0].Score.Targets()[0].WrittenName)
	assert.Len(t, practice.Steps[0].Timeline.Clicks, 9)

	id := newID()
	file := played(t, synth.Player{Offset: -18, Gaps: []synth.Gap{{At: 0.8, Length: 0.3}}})
	status, _ := player.upload(b, id, "microphone", 1, file)
	require.Equal(t, 201, status)
	heard := player.heard(id)
	assert.Equal(t, verdict.NotYet, heard.Verdict.Result)
	assert.Equal(t, measure.CauseGap, heard.Verdict.Deciding.Cause)
	require.Len(t, heard.Events, 1)
	assert.InDelta(t, 0.3, float64(heard.Events[0].Duration), 0.03)
	assert.Equal(t, "Ada T.", heard.Player, "players see first names and initials")

	director.want(
		200,
		"PUT",
		"/takes/"+id+"/acts/"+newID(),
		map[string]string{"kind": "comment", "words": " One breath through. "},
		nil,
	)
	director.want(200, "PUT", "/takes/"+id+"/review", map[string]string{"result": "nearly"}, nil)

	var today board.Today
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &today)
	cell := today.Sections[0].Players[0].Cells[0]
	assert.Equal(t, "Ada Testerly", today.Sections[0].Players[0].Name)
	assert.Equal(t, verdict.Nearly, cell.Result)
	assert.True(t, cell.Overruled)
	assert.Contains(t, string(cell.Ribbon), "C: in tune, held")
	assert.Contains(t, string(cell.Ribbon), "a gap in beat")
	assert.Equal(t, map[string]int{"nearly": 1, "missing": 1}, today.Steps[0].Results)
	assert.Equal(t, board.Missing, today.Sections[1].Players[0].Cells[0].State)

	player.want(200, "GET", "/practice", nil, &practice)
	require.Len(t, practice.Comments, 1)
	assert.Equal(t, "One breath through.", practice.Comments[0].Body)
	again := player.heard(id)
	assert.Equal(t, verdict.NotYet, again.Verdict.Result, "the measured word stays")
	assert.Equal(t, verdict.Nearly, again.Overruled)

	director.want(200, "PUT", "/takes/"+id+"/review", map[string]string{"result": "measured"}, &heard)
	assert.Empty(t, heard.Overruled)
}

func TestChangingThePlanReachesEveryInstrument(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director, player := h.director(t, b), h.player(t, b, 1)
	path := "/classes/" + b.Class.ID + "/plans/" + store.Monday(b.Class.Day(time.Now())).Format(time.DateOnly)
	var week api.PlanView
	director.want(200, "GET", path, nil, &week)
	require.Len(t, week.Items, 1)
	change := map[string]any{"based_on_revision": week.Revision, "name": week.Name, "items": week.Items}
	week.Items[0].Parameters = map[string]any{"notes": []int{0, 7}, "beats": 6, "rest_beats": 4, "tempo_bpm": 80}
	director.want(200, "PUT", path, change, &week)
	assert.Equal(t, "changed Long tone, counted. ", week.History[0].Changes)
	assert.Equal(t, b.Director.Name, week.History[0].By)

	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	assert.Equal(t, 2, practice.Steps[0].Version)
	assert.Equal(t, "F3", practice.Steps[0].Score.Targets()[1].WrittenName)
	assert.Equal(t, "position 1", practice.Steps[0].Score.Targets()[1].Fingering.Text)

	week.Items[0].Parameters = map[string]any{"notes": []int{0}, "beats": 16, "rest_beats": 4, "tempo_bpm": 40}
	change["items"], change["based_on_revision"] = week.Items, week.Revision
	res, answer := director.ask("PUT", path, change)
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, string(answer), "items[0].parameters.beats")
	assert.Contains(t, string(answer), "24 s")

	// A take played to the step as it was is judged by the step as it was.
	early := h.player(t, b, 0)
	id := newID()
	status, _ := early.upload(b, id, "microphone", 1, played(t, synth.Player{}))
	require.Equal(t, 201, status)
	assert.Equal(t, verdict.Clean, early.heard(id).Verdict.Result)
	var today board.Today
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, &today)
	assert.True(t, today.Sections[0].Players[0].Cells[0].Earlier)
}

func TestOtherWaysToMakeATake(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	player := h.player(t, b, 0)
	want := map[string]measure.Cause{
		"wavering": measure.CauseSteadiness, "flat": measure.CauseCentre, "crack": measure.CauseBreak,
	}
	for key, cause := range want {
		id := newID()
		player.want(
			201,
			"POST",
			"/takes/"+id+"/simulated",
			map[string]any{"stand_in": key, "step": b.Step.ID, "version": 1},
			nil,
		)
		heard := player.heard(id)
		require.NotNil(t, heard.Verdict.Deciding, key)
		assert.Equal(t, cause, heard.Verdict.Deciding.Cause, key)
	}
	// A file knows nothing of our click: it is lined up by its first note.
	id := newID()
	file := played(t, synth.Player{Offset: 5})
	sound, err := wav.Decode(bytes.NewReader(file), 0)
	require.NoError(t, err)
	sound.Samples = sound.Samples[sound.Rate/2:]
	status, _ := player.upload(b, id, "file", 1, wav.Encode(sound))
	require.Equal(t, 201, status)
	heard := player.heard(id)
	assert.NotContains(t, heard.Recording.Faults, ear.CutShort)
	assert.Equal(t, verdict.Clean, heard.Verdict.Result)
}

func TestSoundAndContourComeBack(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	player := h.player(t, b, 0)
	id := newID()
	file := played(t, synth.Player{})
	status, _ := player.upload(b, id, "microphone", 1, file)
	require.Equal(t, 201, status)
	player.heard(id)
	res, back := player.ask("GET", "/takes/"+id+"/audio.wav", nil)
	assert.Equal(t, "audio/wav", res.Header.Get("Content-Type"))
	assert.Equal(t, file, back, "kept without loss")
	_, packed := player.ask("GET", "/takes/"+id+"/audio.flac", nil)
	sound, err := flac.Decode(bytes.NewReader(packed), 0)
	require.NoError(t, err)
	assert.Equal(t, 48000, sound.Rate)
	_, csv := player.ask("GET", "/takes/"+id+"/contour.csv", nil)
	assert.True(t, strings.HasPrefix(string(csv), "time_s,f0_hz,confidence,level_db\n"))
}
