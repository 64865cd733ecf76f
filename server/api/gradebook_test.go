package api_test

import (
	"bytes"
	"encoding/csv"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/consent"
	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// Practice goes into the school's gradebook by week: as a list, and as OneRoster files.
func TestPracticeGoesIntoTheGradebook(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "GRADES")
	_, err := h.store.SQL().Exec("UPDATE player SET external_id = 'u1' WHERE id = $1", b.Players[0].ID)
	require.NoError(t, err)
	ada := h.player(t, b, 0)
	for range 2 {
		ada.playedAs(b, synth.Player{})
	}
	director := h.director(t, b)
	at := "/classes/" + b.Class.ID + "/gradebook"
	res, file := director.ask("GET", at+".csv?goal=3", nil)
	require.Equal(t, 200, res.StatusCode)
	lines, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(string(file), "\ufeff"))).ReadAll()
	require.NoError(t, err)
	require.Len(t, lines, 3)
	monday := store.Monday(b.Class.Day(time.Now())).Format(time.DateOnly)
	assert.Equal(t, []string{monday, "u1", "Ada", "Testerly", "clarinet", "1", "2"}, lines[1][:7])
	assert.Equal(t, []string{"1", "3"}, lines[1][9:])
	assert.Equal(t, []string{b.Players[1].ID, "Bo", "Testerly", "trombone", "0", "0"}, lines[2][1:7])

	_, packed := director.ask("GET", at+".zip?class_id=c7", nil)
	files := unpacked(t, packed)
	assert.Contains(t, string(files["results.csv"]), "c7-"+monday+"-u1,active,")
	assert.True(t, bytes.HasPrefix(files["manifest.csv"], []byte("propertyName,value\n")))
	for field, asked := range map[string]string{"goal": "goal=9", "from": "from=yesterday", "to": "from=2020-01-01"} {
		res, said := director.ask("GET", at+".csv?"+asked, nil)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
		assert.Contains(t, string(said), field)
	}
}

// The year turns: what was agreed with homes, and how long things are kept, goes on.
func TestTheNextYearGoesOnAsAgreed(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "TURN")
	director := h.director(t, b)
	director.consents(b, 0, map[consent.Purpose]bool{"keeping": false})
	var set, next api.ClassSetUp
	director.want(200, "GET", "/classes/"+b.Class.ID+"/set-up", nil, &set)
	director.want(200, "PUT", "/classes/"+b.Class.ID+"/settings", map[string]any{
		"name": set.Class.Name, "first_lesson": "", "class_minutes": 6, "home_minutes": 0, "keep_days": 30,
		"keep_voice_days": 10, "keep_measures_days": 400, "conventions": set.Conventions, "tips": map[string]string{},
	}, nil)
	director.want(200, "POST", "/classes", map[string]any{
		"name": "Next year", "like": b.Class.ID, "keep": []string{b.Players[0].ID, b.Players[1].ID},
	}, &next)
	assert.Equal(t, []int{30, 10, 400}, []int{next.KeepDays, next.KeepVoice, next.KeepMeasures})
	var all api.ClassConsents
	director.want(200, "GET", "/classes/"+next.Class.ID+"/consents", nil, &all)
	require.Len(t, all.Players, 2)
	for _, p := range all.Players {
		assert.Equal(t, !strings.HasPrefix(p.Name, "Ada"), p.May.Keep, p.Name)
	}
}
