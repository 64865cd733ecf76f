package api_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/api"
	"earlychorus/server/store/storetest"
)

// preview has a list read; asked says by hand how.
func (v visitor) preview(b storetest.Band, file []byte, asked url.Values) (p api.RosterPreview) {
	v.t.Helper()
	res, answer := v.ask("POST", "/classes/"+b.Class.ID+"/roster/preview?"+asked.Encode(), file)
	require.Equal(v.t, 200, res.StatusCode, string(answer))
	require.NoError(v.t, json.Unmarshal(answer, &p))
	return p
}

// actions are what a preview would do, by first name.
func actions(p api.RosterPreview) map[string]string {
	out := map[string]string{}
	for _, r := range p.Rows {
		out[r.FirstName] = r.Action
	}
	return out
}

// A sheet in a school's own words is told once, for all its classes; no other school learns of
// it.
func TestASchoolsListIsTaughtOnce(t *testing.T) {
	h := newServer(t)
	b, other := storetest.NewBand(t, h.store, "TAUGHT"), storetest.NewBand(t, h.store, "UNTAUGHT")
	director := h.director(t, b)
	// As an older spreadsheet saves it: Windows' encoding, and semicolons.
	sheet := []byte("Kind;Tute\nZo\xEB Lee;Gro\xDFes Blech\nAnna \xC5s;Gro\xDFes Blech\n")
	assert.Empty(t, director.preview(b, sheet, nil).Rows)
	p := director.preview(b, sheet, url.Values{"meaning": {"name", "instrument"}})
	require.Len(t, p.Rows, 2)
	assert.Equal(t, "Zoë", p.Rows[0].FirstName)
	assert.Equal(t, "Großes Blech", p.Rows[0].Said)
	for n := range p.Rows {
		p.Rows[n].Instrument = "tuba"
	}
	director.want(
		200,
		"POST",
		"/classes/"+b.Class.ID+"/roster",
		map[string]any{"rows": p.Rows, "columns": p.Columns},
		nil,
	)
	again := director.preview(b, []byte("Kind;Tute\nIda Moss;großes blech\nUnbekannt;Tute\n"), nil)
	require.Len(t, again.Rows, 2)
	assert.Equal(t, "tuba", again.Rows[0].Instrument)
	assert.Empty(t, h.director(t, other).preview(other, sheet, nil).Rows)

	res, said := director.ask("POST", "/classes/"+b.Class.ID+"/roster/preview?meaning=shoes", sheet)
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, string(said), "meaning")
}

// A OneRoster export of a school: its class is chosen, and who left it leaves.
func TestAOneRosterUpdate(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "ROSTERED")
	director := h.director(t, b)
	roster := func(enrolled string) []byte {
		var out bytes.Buffer
		z := zip.NewWriter(&out)
		for name, text := range map[string]string{
			"classes.csv": "sourcedId,title\nc1,Winds\nc2,Strings\n",
			"users.csv": "sourcedId,status,enabledUser,givenName,familyName\nu1,active,true,Wren,Ash\n" +
				"u2,active,true,Ivo,Bell\nu3,active,true,Kit,Cole\n",
			"enrollments.csv": "sourcedId,classSourcedId,userSourcedId,role\n" + enrolled,
		} {
			w, err := z.Create(name)
			require.NoError(t, err)
			_, err = w.Write([]byte(text))
			require.NoError(t, err)
		}
		require.NoError(t, z.Close())
		return out.Bytes()
	}
	whole := roster("e1,c1,u1,student\ne2,c1,u2,student\ne3,c2,u3,student\n")
	p := director.preview(b, whole, nil)
	assert.Empty(t, p.Rows)
	require.Len(t, p.Classes, 2)
	p = director.preview(b, whole, url.Values{"class_id": {"c1"}})
	require.Equal(t, map[string]string{"Wren": "add", "Ivo": "add"}, actions(p), "who has no number stays")
	for n := range p.Rows {
		p.Rows[n].Instrument = "flute"
	}
	class := "/classes/" + b.Class.ID
	var set api.ClassSetUp
	director.want(200, "POST", class+"/roster", map[string]any{"rows": p.Rows}, &set)
	assert.Len(t, set.Players, 4)

	p = director.preview(b, roster("e1,c1,u1,student\ne2,c1,u2,student\ne4,c1,u3,student\n"), nil)
	assert.Equal(t, map[string]string{"Wren": "same", "Ivo": "same", "Kit": "add"}, actions(p))
	p = director.preview(b, roster("e2,c1,u2,student\n"), nil)
	require.Equal(t, map[string]string{"Ivo": "same", "Wren": "leave"}, actions(p))
	director.want(200, "POST", class+"/roster", map[string]any{"rows": p.Rows}, &set)
	assert.Len(t, set.Players, 3)
	other := storetest.NewBand(t, h.store, "OTHERROSTER")
	p.Rows[1].PlayerID = other.Players[0].ID
	director.want(404, "POST", class+"/roster", map[string]any{"rows": p.Rows}, nil)
}

// Who has no instrument yet is on the list, and has something to do.
func TestAPlayerWithoutAnInstrument(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "NOTYET")
	director := h.director(t, b)
	p := director.preview(b, []byte("Name,Instrument\nIda Moss,TBD\n"), nil)
	require.Empty(t, p.Rows[0].Problems)
	var set api.ClassSetUp
	director.want(200, "POST", "/classes/"+b.Class.ID+"/roster", map[string]any{"rows": p.Rows}, &set)
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, nil)
	director.want(200, "GET", "/classes/"+b.Class.ID+"/care", nil, nil)
	var fresh struct {
		PIN string `json:"pin"`
	}
	ida := set.Players[len(set.Players)-1]
	require.Equal(t, "none-yet", ida.Instrument)
	director.want(200, "POST", "/classes/"+b.Class.ID+"/players/"+ida.ID+"/pin", nil, &fresh)
	v := h.visitor(t)
	v.want(200, "POST", "/sign-in/player", map[string]string{
		"code": b.Class.Code, "player_id": ida.ID, "pin": fresh.PIN,
	}, nil)
	v.want(200, "GET", "/practice", nil, nil)
}
