package api_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/synth"
	"earlychorus/server/api"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// pass has a class's director make a pass, until tomorrow unless it says otherwise.
func (v visitor) pass(b storetest.Band, p map[string]any) api.ClassPasses {
	v.t.Helper()
	asked := map[string]any{"name": "Somebody", "until": time.Now().AddDate(0, 0, 1).Format(time.DateOnly)}
	for key, value := range p {
		asked[key] = value
	}
	var made api.ClassPasses
	v.want(200, "POST", "/classes/"+b.Class.ID+"/passes", asked, &made)
	return made
}

// byPass is somebody who came in by a pass of a class.
func (h *testServer) byPass(t testing.TB, b storetest.Band, p map[string]any) visitor {
	v := h.visitor(t)
	v.want(200, "POST", "/sign-in/pass", map[string]string{"code": h.director(t, b).pass(b, p).Code}, nil)
	return v
}

// A substitute's day: the board and the class, until the day is over; nobody is heard, and
// nothing is changed.
func TestASubstituteSeesTheClassAndHearsNobody(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "SUB")
	take := h.player(t, b, 0).playedAs(b, synth.Player{})
	director := h.director(t, b)
	made := director.pass(b, map[string]any{"role": "substitute", "name": "Mr. Teal"})
	assert.Equal(t, "Mr. Teal", made.For)
	assert.True(t, strings.HasSuffix(made.Link, "/pass#"+made.Code), made.Link)

	sub := h.visitor(t)
	var me api.Me
	sub.want(200, "POST", "/sign-in/pass", map[string]string{"code": strings.ToLower(made.Code)}, &me)
	assert.Equal(t, api.Me{
		Role:    "substitute",
		Name:    "Mr. Teal",
		Class:   b.Class.Name,
		ID:      made.Passes[0].ID,
		ClassID: b.Class.ID,
	}, me)
	class := "/classes/" + b.Class.ID
	var today struct {
		Sections []struct {
			Players []struct {
				Name string `json:"name"`
			} `json:"players"`
		} `json:"sections"`
	}
	sub.want(200, "GET", class+"/today", nil, &today)
	assert.Equal(t, "Ada Testerly", today.Sections[0].Players[0].Name)
	sub.want(200, "GET", class+"/plans/"+store.Monday(time.Now()).Format(time.DateOnly)+"/front/0", nil, nil)
	sub.want(404, "GET", "/takes/"+take.ID, nil, nil)
	growth := "/players/" + b.Players[0].ID + "/growth"
	for _, closed := range []string{"/set-up", "/passes", growth, "/everything.zip"} {
		sub.want(404, "GET", class+closed, nil, nil)
	}

	// An assistant hears, and says nothing in the director's name.
	helper := h.byPass(t, b, map[string]any{"role": "assistant"})
	helper.want(200, "GET", "/takes/"+take.ID, nil, nil)
	helper.want(404, "PUT", "/takes/"+take.ID+"/review", map[string]string{"result": "clean"}, nil)

	// It ends with the day, or at once.
	director.want(200, "DELETE", class+"/passes/"+made.Passes[0].ID, nil, nil)
	sub.want(401, "GET", class+"/today", nil, nil)
	sub.want(404, "POST", "/sign-in/pass", map[string]string{"code": made.Code}, nil)
	_, err := h.store.SQL().Exec("UPDATE pass SET ends_at = now() - interval '1 second'")
	require.NoError(t, err)
	helper.want(404, "GET", class+"/today", nil, nil)
	helper.want(200, "GET", "/me", nil, &me)
	assert.Equal(t, "nobody", me.Role)
}

// A family sees its own child's growth, and no take, no class, no other child.
func TestAFamilySeesItsOwnChild(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "HOME")
	take := h.player(t, b, 0).playedAs(b, synth.Player{})
	home := h.byPass(t, b, map[string]any{"role": "family", "player": b.Players[0].ID})
	var grown struct {
		Player struct {
			Name string `json:"name"`
		} `json:"player"`
	}
	home.want(200, "GET", "/players/"+b.Players[0].ID+"/growth", nil, &grown)
	assert.Equal(t, "Ada Testerly", grown.Player.Name)
	_, said := home.ask("GET", "/players/"+b.Players[0].ID+"/growth", nil)
	assert.Contains(t, string(said), `"code":""`, "it opens the names of the whole class")
	res, _ := home.ask("GET", "/players/"+b.Players[0].ID+"/report.pdf", nil)
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	home.want(404, "GET", "/players/"+b.Players[1].ID+"/growth", nil, nil)
	home.want(404, "GET", "/takes/"+take.ID, nil, nil)
	home.want(404, "GET", "/classes/"+b.Class.ID+"/today", nil, nil)

	// Who left the class is followed no more.
	h.director(t, b).want(200, "DELETE", "/classes/"+b.Class.ID+"/roster/"+b.Players[0].ID, nil, nil)
	home.want(404, "GET", "/players/"+b.Players[0].ID+"/growth", nil, nil)
}

// What a pass cannot be is said by the field.
func TestAPassSaysWhatIsWrong(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "NOPASS")
	director, tomorrow := h.director(t, b), time.Now().AddDate(0, 0, 1).Format(time.DateOnly)
	for field, asked := range map[string]map[string]string{
		"until":  {"role": "substitute", "name": "Yesterday's", "until": "2020-01-01"},
		"name":   {"role": "substitute", "name": "   ", "until": tomorrow},
		"player": {"role": "family", "name": "A home", "until": tomorrow},
	} {
		res, said := director.ask("POST", "/classes/"+b.Class.ID+"/passes", asked)
		assert.Equal(t, 422, res.StatusCode, field)
		assert.Contains(t, string(said), field)
	}
}

// A player sees how they have grown themselves.
func TestAPlayerSeesTheirOwnGrowth(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "MYOWN")
	ada := h.player(t, b, 0)
	ada.playedAs(b, synth.Player{})
	var grown struct {
		Player struct {
			ID   string `json:"id"`
			Name string `json:"name"`
		} `json:"player"`
		Days []string `json:"days"`
	}
	ada.want(200, "GET", "/practice/growth", nil, &grown)
	assert.Equal(t, b.Players[0].ID, grown.Player.ID)
	assert.Equal(t, "Ada T.", grown.Player.Name)
	assert.Len(t, grown.Days, 1)
	h.director(t, b).want(404, "GET", "/practice/growth", nil, nil)
}
