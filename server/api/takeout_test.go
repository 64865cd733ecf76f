package api_test

import (
	"archive/zip"
	"bytes"
	"encoding/csv"
	"encoding/json"
	"io"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/synth"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// unpacked reads a ZIP file's files by name.
func unpacked(t *testing.T, packed []byte) map[string][]byte {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(packed), int64(len(packed)))
	require.NoError(t, err)
	out := map[string][]byte{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		out[f.Name], err = io.ReadAll(r)
		require.NoError(t, err)
	}
	return out
}

// A class's ZIP has all of it, twice and the same, with its sounds, and nothing of
// anybody else or anything secret.
func TestEverythingOfAClassCanBeTakenOut(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "OUT"), storetest.NewBand(t, h.store, "ELSE")
	take := newID()
	player := h.player(t, b, 0)
	status, _ := player.upload(b, take, "microphone", 1, played(t, synth.Player{}))
	require.Equal(t, 201, status)
	player.heard(take)
	theirs := newID()
	status, _ = h.player(t, other, 0).upload(other, theirs, "microphone", 1, played(t, synth.Player{Offset: 3}))
	require.Equal(t, 201, status)
	player.want(
		204,
		"PUT",
		"/practice/flags/"+newID(),
		map[string]any{"kind": "question", "words": "Is \"half\" a lot,\nor little?"},
		nil,
	)
	director := h.director(t, b)
	director.want(
		200,
		"PUT",
		"/takes/"+take+"/acts/"+newID(),
		map[string]any{"kind": "overrule", "result": "nearly"},
		nil,
	)
	director.want(
		200,
		"PUT",
		"/takes/"+take+"/acts/"+newID(),
		map[string]any{"kind": "comment", "words": "Öfter – so!", "at_s": 1.5},
		nil,
	)
	director.want(200, "PUT", "/takes/"+take+"/acts/"+newID(), map[string]any{"kind": "comment", "words": "=1+1"}, nil)

	res, packed := director.ask("GET", "/classes/"+b.Class.ID+"/everything.zip?sounds=true", nil)
	require.Equal(t, 200, res.StatusCode)
	assert.Equal(t, "application/zip", res.Header.Get("Content-Type"))
	files := unpacked(t, packed)
	for _, table := range store.KeptOfClass() {
		lines, err := csv.NewReader(bytes.NewReader(files["csv/"+table.Name+".csv"])).ReadAll()
		require.NoError(t, err, table.Name)
		objects := bytes.Split(bytes.TrimSpace(files["json/"+table.Name+".ndjson"]), []byte("\n"))
		if len(lines) == 1 {
			assert.Empty(t, objects[0], table.Name)
			continue
		}
		require.Len(t, objects, len(lines)-1, table.Name)
		for n, object := range objects {
			var fields map[string]any
			require.NoError(t, json.Unmarshal(object, &fields), table.Name)
			assert.Len(t, fields, len(lines[0]))
			for k, name := range lines[0] {
				if text, is := fields[name].(string); is && !strings.Contains(name, "_at") && name != "at" {
					assert.Equal(t, text, strings.TrimPrefix(lines[1+n][k], "'"), "%s.%s", table.Name, name)
				}
			}
		}
	}
	count := func(name string) int {
		return bytes.Count(bytes.TrimSpace(files["json/"+name+".ndjson"]), []byte("\n")) + 1
	}
	assert.Equal(t, 2, count("players"))
	assert.Equal(t, 1, count("takes"))
	assert.Contains(t, string(files["csv/comments.csv"]), "Öfter – so!")
	assert.Contains(t, string(files["csv/comments.csv"]), ",'=1+1", "no spreadsheet runs it")
	assert.Contains(t, string(files["json/words.ndjson"]), `"result" : "nearly"`)
	assert.Contains(t, string(files["json/flags.ndjson"]), `or little?`)
	_, flac := player.ask("GET", "/takes/"+take+"/audio.flac", nil)
	assert.Equal(t, flac, files["takes/"+take+".flac"])
	readme := string(files["README.md"])
	for _, table := range store.KeptOfClass() {
		for _, c := range table.Columns {
			assert.Contains(t, readme, "`"+c.Name+"`")
		}
	}
	for name, body := range files {
		assert.NotContains(t, string(body), other.Players[0].ID, name)
		assert.NotContains(t, string(body), "$2a$", "%s: no hash of a PIN or password", name)
		assert.NotContains(t, name, theirs)
	}

	_, packed = director.ask("GET", "/classes/"+b.Class.ID+"/everything.zip", nil)
	names := []string{}
	for name := range unpacked(t, packed) {
		names = append(names, name)
	}
	assert.False(
		t,
		slices.ContainsFunc(names, func(n string) bool { return strings.HasSuffix(n, ".flac") }),
		"sounds only where they are asked for",
	)
}

// One child's own, and nothing of anybody else's.
func TestEverythingOfAChildCanBeTakenOut(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "ONECHILD")
	hers, his := h.player(t, b, 0).playedAs(b, synth.Player{}), h.player(t, b, 1).playedAs(b, synth.Player{})
	director := h.director(t, b)
	director.want(
		200,
		"PUT",
		"/takes/"+his.ID+"/acts/"+newID(),
		map[string]any{"kind": "comment", "words": "Of Bo"},
		nil,
	)
	at := "/classes/" + b.Class.ID + "/players/" + b.Players[0].ID + "/everything.zip?sounds=true"
	res, packed := director.ask("GET", at, nil)
	require.Equal(t, 200, res.StatusCode)
	files := unpacked(t, packed)
	assert.NotEmpty(t, files["takes/"+hers.ID+".flac"])
	assert.Contains(t, string(files["README.md"]), "Ada Testerly")
	for name, body := range files {
		for _, other := range []string{b.Players[1].ID, his.ID, "Of Bo"} {
			assert.NotContains(t, string(body), other, name)
			assert.NotContains(t, name, other)
		}
	}
	other := storetest.NewBand(t, h.store, "OTHERCHILD")
	theirs := "/classes/" + b.Class.ID + "/players/" + other.Players[0].ID + "/everything.zip"
	director.want(404, "GET", theirs, nil, nil)

	// A deletion says what it did.
	var gone struct {
		store.Forgotten
		BackupDays int `json:"backup_days"`
	}
	director.want(200, "DELETE", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID, nil, &gone)
	assert.Equal(t, 1, gone.Takes)
	assert.Equal(t, 1, gone.Recordings)
}
