package api_test

import (
	"bufio"
	"encoding/csv"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/progress"
	"earlychorus/core/synth"
	"earlychorus/core/verdict"
	"earlychorus/server/api"
	"earlychorus/server/growth"
	"earlychorus/server/listening"
	"earlychorus/server/practicepage"
	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
	"earlychorus/server/workers"
)

// playedAs hands a take of the band's step in and waits until it was heard.
func (v visitor) playedAs(b storetest.Band, p synth.Player) api.TakeDetail {
	v.t.Helper()
	id := newID()
	status, answer := v.upload(b, id, "microphone", 1, played(v.t.(*testing.T), p))
	require.Equal(v.t, 201, status, answer)
	return v.heard(id)
}

func TestAMorningOfListening(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "LISTEN")
	director, ada := h.director(t, b), h.player(t, b, 0)
	bad := ada.playedAs(b, synth.Player{Offset: -70})
	ada.want(204, "PUT", "/practice/flags/"+newID(), map[string]any{"kind": "question", "words": "Is it me?"}, nil)

	path := "/classes/" + b.Class.ID + "/listening"
	var l listening.ListeningView
	director.want(200, "GET", path+"?minutes=5", nil, &l)
	require.Len(t, l.Excerpts, 1)
	e := l.Excerpts[0]
	assert.Equal(t, bad.ID, e.Take)
	assert.Equal(t, "Ada Testerly", e.Name)
	assert.Equal(t, progress.Question, e.Why[0].Reason)
	assert.Equal(t, "asks: Is it me?", e.Why[0].Text)
	assert.Less(t, float64(e.From), float64(e.To))

	// Every act is undone by its number, and sent twice it counts once.
	act := newID()
	var take api.TakeDetail
	for range 2 {
		director.want(
			200,
			"PUT",
			"/takes/"+bad.ID+"/acts/"+act,
			map[string]any{"kind": "overrule", "result": "nearly"},
			&take,
		)
	}
	assert.Equal(t, verdict.Nearly, take.Overruled)
	accept := newID()
	director.want(200, "PUT", "/takes/"+bad.ID+"/acts/"+accept, map[string]any{"kind": "accept"}, &take)
	assert.Equal(t, take.Verdict.Result, take.Overruled)
	director.want(200, "DELETE", "/takes/"+bad.ID+"/acts/"+accept, nil, &take)
	assert.Equal(t, verdict.Nearly, take.Overruled, "the word before stands again")
	var undone api.TakeDetail
	director.want(200, "DELETE", "/takes/"+bad.ID+"/acts/"+act, nil, &undone)
	assert.Empty(t, undone.Overruled)
	director.want(404, "DELETE", "/takes/"+bad.ID+"/acts/"+act, nil, nil)

	at := 3.5
	praise, again := newID(), newID()
	director.want(200, "PUT", "/takes/"+bad.ID+"/acts/"+praise, map[string]any{"kind": "praise"}, nil)
	director.want(200, "PUT", "/takes/"+bad.ID+"/acts/"+again, map[string]any{"kind": "again"}, nil)
	director.want(
		200,
		"PUT",
		"/takes/"+bad.ID+"/acts/"+newID(),
		map[string]any{"kind": "comment", "words": "Air here.", "at_s": at, "phrase": true},
		&take,
	)
	director.want(422, "PUT", "/takes/"+bad.ID+"/acts/"+newID(), map[string]any{"kind": "comment", "words": "  "}, nil)
	director.want(422, "PUT", "/takes/"+bad.ID+"/acts/"+newID(), map[string]any{"kind": "overrule"}, nil)
	require.Len(t, take.Comments, 3)
	assert.Equal(t, at, *take.Comments[2].At)
	var practice practicepage.Practice
	ada.want(200, "GET", "/practice", nil, &practice)
	require.Len(t, practice.Comments, 3, "they reach the player")
	director.want(200, "DELETE", "/takes/"+bad.ID+"/acts/"+praise, nil, nil)
	ada.want(200, "GET", "/practice", nil, &practice)
	assert.Len(t, practice.Comments, 2)

	// The place is kept, for every device; what was listened to does not come again.
	director.want(204, "PUT", path, map[string]any{"place": 1, "spent_s": 12.5, "listened": bad.ID}, nil)
	h.director(t, b).want(200, "GET", path, nil, &l)
	assert.Equal(t, 1, l.Place)
	assert.InDelta(t, 12.5, l.Spent, 1e-9)
	require.Len(t, l.Phrases, 1)
	assert.Equal(t, "Air here.", l.Phrases[0].Words)
	director.want(200, "GET", path+"?minutes=5&afresh=true", nil, &l)
	assert.Empty(t, l.Excerpts)
	director.want(204, "DELETE", "/phrases/"+l.Phrases[0].ID, nil, nil)

	director.want(
		204,
		"PUT",
		"/classes/"+b.Class.ID+"/weights",
		map[string]any{"weights": map[string]int{"pain": 0}},
		nil,
	)
	director.want(200, "GET", path, nil, &l)
	assert.Zero(t, l.Weights[progress.Pain])
	assert.Equal(t, 60, l.Weights[progress.Question])
	director.want(
		422,
		"PUT",
		"/classes/"+b.Class.ID+"/weights",
		map[string]any{"weights": map[string]int{"loudest": 9}},
		nil,
	)
	other := h.director(t, storetest.NewBand(t, h.store, "OTHER"))
	other.want(404, "GET", path, nil, nil)
	other.want(404, "PUT", "/takes/"+bad.ID+"/acts/"+newID(), map[string]any{"kind": "praise"}, nil)
}

// Of one player two takes at most are heard in a morning. What is left is said again
// when the listening is gone on with, on whatever device.
func TestWhatIsLeftIsSaidAgain(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "LEFT")
	steps := []store.Step{b.Step}
	for _, degree := range []int{2, 4} {
		steps = append(
			steps,
			b.AddStep(t, h.store, exercise.New(exercise.KindLongToneCounted, map[string]any{"notes": []int{degree}})),
		)
	}
	for _, step := range steps {
		b.Play(t, h.store, storetest.Played{Step: step, At: time.Now(), Result: verdict.NotYet})
	}
	path := "/classes/" + b.Class.ID + "/listening"
	var l listening.ListeningView
	h.director(t, b).want(200, "GET", path+"?minutes=5", nil, &l)
	require.Len(t, l.Excerpts, 2)
	assert.Equal(t, 1, l.Left)
	director := h.director(t, b)
	director.want(204, "PUT", path, map[string]any{"place": 2, "spent_s": 30}, nil)
	var again listening.ListeningView
	director.want(200, "GET", path, nil, &again)
	assert.Equal(t, 1, again.Left)
	assert.Equal(t, 2, again.Place)
}

// The counts of the note map are the database's, and so is growth; both go out as
// CSV and JSON.
func TestNoteMapAndGrowth(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "MAP")
	director, ada := h.director(t, b), h.player(t, b, 0)
	ada.playedAs(b, synth.Player{})
	ada.playedAs(b, synth.Player{Offset: -70})
	ada.playedAs(b, synth.Player{})

	var s growth.SectionView
	director.want(200, "GET", "/classes/"+b.Class.ID+"/sections/Clarinets", nil, &s)
	require.Len(t, s.Maps, 1)
	require.Len(t, s.Maps[0].Notes, 1)
	note := s.Maps[0].Notes[0]
	assert.Equal(t, "C4", note.Written)
	assert.Equal(t, "B♭3", note.Concert)
	var inDatabase struct{ Takes, Good int }
	row := h.store.SQL().QueryRow(
		`SELECT count(*), count(*) FILTER (WHERE good) FROM take_note WHERE player_id = $1`,
		b.Players[0].ID,
	)
	require.NoError(t, row.Scan(&inDatabase.Takes, &inDatabase.Good))
	assert.Equal(t, inDatabase.Takes, note.Takes)
	assert.Equal(t, inDatabase.Good, note.Good)
	assert.Equal(t, [2]int{3, 2}, [2]int{note.Takes, note.Good})
	assert.False(t, note.Wall, "three takes are no wall")
	assert.Equal(t, []string{"Clarinets", "Trombones"}, s.Sections)
	director.want(404, "GET", "/classes/"+b.Class.ID+"/sections/Kazoos", nil, nil)

	var g growth.GrowthView
	director.want(200, "GET", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID+"/growth", nil, &g)
	require.Len(t, g.Weeks, 1)
	assert.Len(t, g.Weeks[0].Takes, 3)
	assert.Equal(t, store.Monday(b.Class.Day(time.Now())).Format(time.DateOnly), g.Weeks[0].Monday)
	assert.Equal(t, "Nothing to say yet.", g.Hold.Says, "so many beats are no measure of breath")
	assert.Equal(t, "1 day so far: too few to say.", g.Centre.Says)
	assert.Len(t, g.Days, 1)
	director.want(404, "GET", "/classes/"+b.Class.ID+"/players/"+newID()+"/growth", nil, nil)

	res, report := director.ask("GET", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID+"/report.pdf", nil)
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	assert.Equal(t, "%PDF", string(report[:4]))
	h.director(t, storetest.NewBand(t, h.store, "OTHER")).
		want(404, "GET", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID+"/report.pdf", nil, nil)

	_, raw := director.ask("GET", "/classes/"+b.Class.ID+"/progress.csv", nil)
	rows, err := csv.NewReader(strings.NewReader(string(raw))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 4)
	assert.Equal(t, "day", rows[0][0])
	assert.Equal(t, exercise.KindLongToneCounted, rows[1][5])
	_, raw = director.ask("GET", "/classes/"+b.Class.ID+"/progress.json", nil)
	assert.Equal(t, 3, strings.Count(string(raw), "\n"))
	ada.want(404, "GET", "/classes/"+b.Class.ID+"/progress.csv", nil, nil)
}

func TestTomorrowIsProposedAndPlanned(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "NEXT")
	director, ada, bo := h.director(t, b), h.player(t, b, 0), h.player(t, b, 1)
	for range 3 {
		ada.playedAs(b, synth.Player{WaverDepth: 60, WaverHz: 3})
	}
	_ = bo
	var tomorrow api.Tomorrow
	director.want(200, "GET", "/classes/"+b.Class.ID+"/tomorrow", nil, &tomorrow)
	assert.NotEmpty(t, tomorrow.Day)
	assert.LessOrEqual(t, float64(tomorrow.Total), 60*tomorrow.Minutes)
	for _, s := range tomorrow.Steps {
		assert.NotEmpty(t, s.Name)
		if s.New {
			assert.NotEmpty(t, s.Reason)
		}
	}
	var after api.Tomorrow
	director.want(200, "POST", "/classes/"+b.Class.ID+"/tomorrow", nil, &after)
	for _, s := range after.Steps {
		assert.False(t, s.New, "all of it is planned now: %s", s.Name)
	}
	assert.Len(t, after.Steps, len(tomorrow.Steps))
}

// A page that watches a class is told when a take arrives and when it was heard.
func TestThePageIsTold(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "LIVE")
	director := h.director(t, b)
	req, err := http.NewRequestWithContext(t.Context(), "GET", director.base+"/classes/"+b.Class.ID+"/events", nil)
	require.NoError(t, err)
	res, err := director.client.Do(req)
	require.NoError(t, err)
	defer res.Body.Close() //nolint:errcheck // a stream
	require.Equal(t, "text/event-stream", res.Header.Get("Content-Type"))
	told := make(chan string, 100)
	go func() {
		for lines := bufio.NewScanner(res.Body); lines.Scan(); {
			told <- lines.Text()
		}
	}()
	require.Equal(t, ": open", <-told)
	h.player(t, b, 0).playedAs(b, synth.Player{})
	require.Eventually(t, func() bool {
		select {
		case line := <-told:
			return line == "event: changed"
		default:
			return false
		}
	}, time.Minute, 10*time.Millisecond)
	other := h.director(t, storetest.NewBand(t, h.store, "QUIET"))
	other.want(404, "GET", "/classes/"+b.Class.ID+"/events", nil, nil)
}

func TestATakeIsLaidBesideOthers(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "BESIDE")
	director, ada := h.director(t, b), h.player(t, b, 0)
	best := ada.playedAs(b, synth.Player{})
	before := ada.playedAs(b, synth.Player{Offset: -70})
	take := ada.playedAs(b, synth.Player{Offset: -30})
	var o api.Others
	director.want(200, "GET", "/takes/"+take.ID+"/others", nil, &o)
	require.NotNil(t, o.Previous)
	assert.Equal(t, before.ID, o.Previous.ID)
	assert.Equal(t, best.ID, o.Best.ID)
	assert.Empty(t, o.Mates, "nobody else plays the clarinet")

	var s struct {
		Bins   int
		Points []byte
		Hop    float64 `json:"hop_s"`
	}
	director.want(200, "GET", "/takes/"+take.ID+"/spectrogram", nil, &s)
	assert.Greater(t, len(s.Points), 100*s.Bins)
	var m struct{ Verdict, Analysis, Score map[string]any }
	director.want(200, "GET", "/takes/"+take.ID+"/measures.json", nil, &m)
	assert.Equal(t, string(take.Verdict.Result), m.Verdict["result"])
	assert.NotEmpty(t, m.Analysis["notes"])
}

func TestAVoiceNoteReachesThePlayerAndIsTakenBack(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "VOICE")
	director, ada := h.director(t, b), h.player(t, b, 0)
	take := ada.playedAs(b, synth.Player{})
	act := newID()
	path := "/takes/" + take.ID + "/voice/" + act
	director.want(204, "PUT", path, played(t, synth.Player{}), nil)
	director.want(415, "PUT", "/takes/"+take.ID+"/voice/"+newID(), []byte("nothing to hear"), nil)
	director.want(422, "PUT", "/takes/"+take.ID+"/voice/nonsense", played(t, synth.Player{}), nil)
	var practice practicepage.Practice
	ada.want(200, "GET", "/practice", nil, &practice)
	require.Len(t, practice.Comments, 1)
	assert.Equal(t, "voice", practice.Comments[0].Kind)
	ada.want(200, "GET", path+".wav", nil, nil)
	h.player(t, b, 1).want(404, "GET", path+".wav", nil, nil)
	director.want(200, "DELETE", "/takes/"+take.ID+"/acts/"+act, nil, nil)
	ada.want(404, "GET", path+".wav", nil, nil)
}

// The sound goes when the class says, the measures stay; deleting a player leaves
// neither.
func TestRecordingsAreLetGoAndPlayersForgotten(t *testing.T) {
	h := newServer(t)
	b := storetest.NewBand(t, h.store, "KEEP")
	director, ada := h.director(t, b), h.player(t, b, 0)
	old, young := ada.playedAs(b, synth.Player{}), ada.playedAs(b, synth.Player{})
	voice := newID()
	director.want(204, "PUT", "/takes/"+young.ID+"/voice/"+voice, played(t, synth.Player{}), nil)
	_, err := h.store.SQL().Exec("UPDATE take SET received_at = now() - interval '400 days' WHERE id = $1", old.ID)
	require.NoError(t, err)
	require.NoError(
		t,
		(&workers.LetGo{Store: h.store, Recordings: h.web.Recordings, Now: time.Now}).Work(t.Context(), nil),
	)
	var take api.TakeDetail
	director.want(200, "GET", "/takes/"+old.ID, nil, &take)
	assert.True(t, take.SoundGone)
	assert.Equal(t, old.Verdict.Sentence, take.Verdict.Sentence, "what was measured stays")
	director.want(200, "GET", "/takes/"+young.ID+"/audio.wav", nil, nil)
	_, gone := director.ask("GET", "/takes/"+old.ID+"/audio.wav", nil)
	assert.Contains(t, string(gone), "let go of", "and says so")
	director.want(410, "GET", "/takes/"+old.ID+"/audio.flac", nil, nil)
	director.want(410, "GET", "/takes/"+old.ID+"/spectrogram", nil, nil)
	ada.want(200, "PUT", "/takes/"+newID()+"/parts/0", []byte("half a take"), nil)
	sounds := h.files
	assert.Len(t, sounds(), 3, "the young take's, the voice note, and a part")

	// A voice note is kept no longer than a recording.
	_, err = h.store.SQL().Exec("UPDATE comment SET written_at = now() - interval '400 days'")
	require.NoError(t, err)
	require.NoError(
		t,
		(&workers.LetGo{Store: h.store, Recordings: h.web.Recordings, Now: time.Now}).Work(t.Context(), nil),
	)
	director.want(410, "GET", "/takes/"+young.ID+"/voice/"+voice+".wav", nil, nil)
	assert.Len(t, sounds(), 2)

	h.director(t, storetest.NewBand(t, h.store, "OTHER")).
		want(404, "DELETE", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID, nil, nil)
	director.want(200, "DELETE", "/classes/"+b.Class.ID+"/players/"+b.Players[0].ID, nil, nil)
	assert.Empty(t, sounds(), "parts of takes that were never whole, too")
	for _, table := range []string{"take", "analysis", "take_note", "comment", "ladder_entry", "flag"} {
		var left int
		require.NoError(
			t,
			h.store.SQL().QueryRow(
				"SELECT count(*) FROM "+table+" WHERE "+map[string]string{
					"take": "player_id = $1", "take_note": "player_id = $1", "ladder_entry": "player_id = $1",
					"flag":     "player_id = $1",
					"analysis": "take_id IN (SELECT id FROM take WHERE player_id = $1)",
					"comment":  "take_id IN (SELECT id FROM take WHERE player_id = $1)",
				}[table],
				b.Players[0].ID,
			).
				Scan(&left),
		)
		assert.Zero(t, left, table)
	}
}
