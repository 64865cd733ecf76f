package api_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/example"
	"earlychorus/core/exercise"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
	"earlychorus/server/api"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

func TestAMessyListBecomesAClass(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	var made api.ClassSetUp
	director.want(200, "POST", "/classes", map[string]any{"name": "New Winds", "keep": []string{}}, &made)
	class := "/classes/" + made.Class.ID
	list := "Instrument;Surname;Given name;Student ID\nBb clarinet;Ashdown;Wren;7\nKazoo;Roe;Caspian;8\n" +
		"1st Horn;Grebe;Sunniva;9\n"
	preview := func(file string) (p api.RosterPreview) {
		res, answer := director.ask("POST", class+"/roster/preview", []byte(file))
		require.Equal(t, 200, res.StatusCode, string(answer))
		require.NoError(t, json.Unmarshal(answer, &p))
		return p
	}
	p := preview(list)
	require.Len(t, p.Rows, 3)
	assert.Equal(t, "add", p.Rows[0].Action)
	require.Len(t, p.Rows[1].Problems, 1)

	// Nothing is half taken in.
	res, answer := director.ask("POST", class+"/roster", map[string]any{"rows": p.Rows})
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, string(answer), "rows[1].instrument")
	director.want(200, "GET", class+"/set-up", nil, &made)
	assert.Empty(t, made.Players)

	p.Rows[1].Instrument = "tuba"
	director.want(200, "POST", class+"/roster", map[string]any{"rows": p.Rows}, &made)
	require.Len(t, made.Players, 3)
	assert.Equal(
		t,
		[]string{"Clarinets", "Horns", "Tubas"},
		[]string{made.Players[0].Section, made.Players[1].Section, made.Players[2].Section},
	)

	// Again, with another name and an instrument that the list does not know.
	again := preview(
		"Given name;Surname;Student ID;Instrument\nWrenna;Ashdown;7;Bb clarinet\nCaspian;Roe;8;\n" +
			"Sunniva;Grebe;9;horn\n",
	)
	assert.Equal(
		t,
		[]string{"change", "same", "same"},
		[]string{again.Rows[0].Action, again.Rows[1].Action, again.Rows[2].Action},
	)
	director.want(200, "POST", class+"/roster", map[string]any{"rows": again.Rows[:1]}, &made)
	assert.Len(t, made.Players, 3)
	assert.Equal(t, "Wrenna", made.Players[0].FirstName)

	assert.Empty(t, preview("Shirt,Shoes\nM,9\n").Rows, "nothing says who")
	director.want(200, "DELETE", class+"/roster/"+made.Players[0].ID, nil, &made)
	assert.Len(t, made.Players, 2)
	director.want(404, "DELETE", class+"/roster/"+b.Players[0].ID, nil, nil)
}

func TestConventionsReachThePlayers(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director, player := h.director(t, b), h.player(t, b, 0)
	class := "/classes/" + b.Class.ID
	c := exercise.StandardConventions()
	c.A4, c.Naming, c.Tuner = 442, music.Romance, "hidden"
	c.Tolerances = map[scores.Stage]scores.Limits{2: scores.Stage(1).Limits()}
	settings := map[string]any{
		"name":          "Renamed",
		"first_lesson":  "2026-09-02",
		"class_minutes": 7,
		"home_minutes":  0,
		"conventions":   c,
		"tips":          verdict.Book{"flat": "Lift it."},
		"remedies":      plan.RemedyBook{"steadiness": {"sing-first"}},
	}
	var setUp api.ClassSetUp
	director.want(200, "PUT", class+"/settings", settings, &setUp)
	assert.Equal(t, "Renamed", setUp.Class.Name)
	assert.Equal(t, "Lift it.", setUp.OwnTips["flat"])
	for _, line := range setUp.Remedies {
		if line.Key == "steadiness" {
			assert.Equal(t, []string{"sing-first"}, line.Kinds)
		}
	}

	var practice practicepage.Practice
	player.want(200, "GET", "/practice", nil, &practice)
	s := practice.Steps[0].Score
	assert.Equal(t, "do4", s.Targets()[0].WrittenName)
	assert.InDelta(t, 442, float64(s.A4Hz), 1e-9)
	assert.True(t, s.EarsFirst)
	assert.InDelta(t, 50, float64(s.Limits.Centre), 1e-9, "the class's own tolerance")

	for field, spoil := range map[string]func(map[string]any){
		"first_lesson": func(m map[string]any) { m["first_lesson"] = "soon" },
		"a4_hz":        func(m map[string]any) { bad := c; bad.A4 = 500; m["conventions"] = bad },
		"naming":       func(m map[string]any) { bad := c; bad.Naming = "klingon"; m["conventions"] = bad },
		"tips":         func(m map[string]any) { m["tips"] = verdict.Book{"no-such": "x"} },
		"remedies":     func(m map[string]any) { m["remedies"] = plan.RemedyBook{"steadiness": {"no-such"}} },
	} {
		bad := map[string]any{}
		for k, v := range settings {
			bad[k] = v
		}
		spoil(bad)
		res, answer := director.ask("PUT", class+"/settings", bad)
		assert.Equal(t, 422, res.StatusCode, field)
		assert.Contains(t, string(answer), field)
	}
	var shown struct{ Effects []example.Effect }
	director.want(
		200,
		"POST",
		class+"/example",
		map[string]any{"conventions": c, "instrument": "clarinet", "stage": 2},
		&shown,
	)
	assert.GreaterOrEqual(t, len(shown.Effects), 4)
	assert.Contains(t, shown.Effects[2].Text, "do4")
}

func TestTheNextYearTakesOver(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	var next api.ClassSetUp
	director.want(
		200,
		"POST",
		"/classes",
		map[string]any{"name": "Second year", "like": b.Class.ID, "keep": []string{b.Players[0].ID}},
		&next,
	)
	require.Len(t, next.Players, 1)
	assert.Equal(t, "Ada", next.Players[0].FirstName)
	assert.NotEqual(t, b.Class.Code, next.Class.Code)
	assert.Regexp(t, `^([A-Z]+-){3}[A-Z]+$`, next.Class.Code)

	var old api.ClassSetUp
	director.want(200, "POST", "/classes/"+b.Class.ID+"/archive", nil, &old)
	assert.True(t, old.Archived)
	h.visitor(t).want(404, "POST", "/sign-in/class", map[string]string{"code": b.Class.Code}, nil)
	director.want(200, "GET", "/classes/"+b.Class.ID+"/today", nil, nil)
}

func TestCardsGiveNewPINs(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	res, pdf := director.ask("POST", "/classes/"+b.Class.ID+"/cards.pdf?players="+b.Players[0].ID, nil)
	require.Equal(t, 200, res.StatusCode)
	assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF")))
	h.visitor(t).want(
		401,
		"POST",
		"/sign-in/player",
		map[string]string{"code": b.Class.Code, "player_id": b.Players[0].ID, "pin": storetest.PIN},
		nil,
	)
	h.visitor(t).want(
		200,
		"POST",
		"/sign-in/player",
		map[string]string{"code": b.Class.Code, "player_id": b.Players[1].ID, "pin": storetest.PIN},
		nil,
	)
}

func TestADayGoesOutOnPaperAndInOpenFormats(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	monday := store.Monday(b.Class.Day(time.Now())).Format(time.DateOnly)
	base := "/classes/" + b.Class.ID + "/plans/" + monday
	for path, starts := range map[string]string{
		"/print.pdf?day=2&at=class":                               "%PDF",
		"/sheet.musicxml?day=2&at=home&instrument=tuba&stage=2":   "<?xml",
		"/sheet.mid?day=2&at=home&instrument=clarinet&stage=2":    "MThd",
		"/sheet.txt?day=2&at=class&instrument=clarinet&stage=2":   "REED Winds",
		"/sheet.json?day=2&at=class&instrument=alto-sax&stage=10": "{",
	} {
		res, answer := director.ask("GET", base+path, nil)
		require.Equal(t, 200, res.StatusCode, "%s: %s", path, answer)
		assert.True(t, strings.HasPrefix(string(answer), starts), path)
	}
	for path, status := range map[string]int{
		"/sheet.doc?day=2&at=class&instrument=tuba": 404, "/sheet.mid?day=9&at=class&instrument=tuba": 422,
		"/sheet.mid?day=1&at=sea&instrument=tuba": 422, "/sheet.mid?day=1&at=class": 422,
	} {
		res, _ := director.ask("GET", base+path, nil)
		assert.Equal(t, status, res.StatusCode, path)
	}

	var week api.PlanView
	director.want(200, "GET", base, nil, &week)
	res, calendar := h.visitor(t).ask("GET", strings.TrimPrefix(week.Feed, "/api"), nil)
	require.Equal(t, 200, res.StatusCode)
	assert.Contains(t, string(calendar), "BEGIN:VEVENT")
	assert.Contains(t, string(calendar), "Long tone\\, counted")
	assert.NotContains(t, string(calendar), "Testerly", "nobody's name")
	res, _ = h.visitor(t).ask("GET", "/feeds/"+newID()+".ics", nil)
	assert.Equal(t, 404, res.StatusCode)

	line := `<score-partwise><part id="P1"><measure number="1"><note>` +
		`<pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note></measure></part></score-partwise>`
	res, answer := director.ask("POST", "/classes/"+b.Class.ID+"/excerpt", []byte(line))
	require.Equal(t, 200, res.StatusCode)
	assert.Contains(t, string(answer), `"degree":2`)
	res, answer = director.ask("POST", "/classes/"+b.Class.ID+"/excerpt", []byte("hello"))
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, string(answer), "This is not a MusicXML file.")
}

func TestTheFrontOfTheRoom(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED") // a clarinet and a trombone
	b.AddStep(t, h.store, exercise.New("buzz-at-once", nil))
	b.AddStep(t, h.store, exercise.New("register-pair", nil), "oboe") // nobody here
	b.AddStep(t, h.store, exercise.New("set-up", nil))
	b.AddStep(t, h.store, exercise.New("buzz-slide", nil))
	b.AddStep(t, h.store, exercise.New("scale", nil), "clarinet")
	var front api.FrontView
	h.director(t, b).
		want(
			200,
			"GET",
			"/classes/"+b.Class.ID+"/plans/"+store.Monday(b.Class.Day(time.Now())).Format(time.DateOnly)+"/front/2",
			nil,
			&front,
		)
	require.Len(t, front.Steps, 5)
	setUp := front.Steps[2]
	assert.Contains(t, setUp.Items, "Sit tall at the front of the chair")
	require.Len(t, setUp.Groups, 2)
	assert.NotEqual(t, setUp.Groups[0].Items, setUp.Groups[1].Items, "each section's own hold")
	for _, g := range setUp.Groups {
		assert.NotEmpty(t, g.Items, g.Names)
		assert.NotContains(t, g.Items, setUp.Items[0])
	}
	assert.NotEmpty(t, front.Steps[3].Groups[1].Notes[0].Goal, "where a slide goes")
	assert.Equal(t, []string{"Trombones"}, front.Steps[4].Resting)
	buzz := front.Steps[1]
	require.Len(t, buzz.Groups, 2)
	assert.Equal(t, []string{"Clarinets"}, buzz.Groups[0].Names)
	assert.Contains(t, buzz.Groups[0].Doing, "while the brass rest")
	assert.Equal(t, scores.Buzz, buzz.Groups[1].Notes[0].Phase, "the step's own score leads")
	found := false
	for _, c := range buzz.Cues {
		found = found || c.Phase == scores.Buzz
	}
	assert.True(t, found)
	assert.Positive(t, float64(buzz.Drone))
}

func TestExceptionsAreADirectorsOwn(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "REED")
	director := h.director(t, b)
	path := "/classes/" + b.Class.ID + "/exceptions"
	day := b.Class.Day(time.Now()).Format(time.DateOnly)
	var setUp api.ClassSetUp
	director.want(
		200,
		"POST",
		path,
		map[string]string{"player_id": b.Players[0].ID, "from": day, "to": day, "why": "ill"},
		&setUp,
	)
	require.Len(t, setUp.Exceptions, 1)
	director.want(
		422,
		"POST",
		path,
		map[string]string{"player_id": b.Players[0].ID, "from": "2026-03-02", "to": "2026-03-01", "why": ""},
		nil,
	)
	director.want(404, "POST", path, map[string]string{"player_id": newID(), "from": day, "to": day, "why": ""}, nil)
	director.want(200, "DELETE", path+"/"+setUp.Exceptions[0].ID, nil, &setUp)
	assert.Empty(t, setUp.Exceptions)
}
