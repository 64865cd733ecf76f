package api

import (
	"context"
	"net/http"
	"slices"
	"strconv"

	"github.com/go-chi/chi/v5"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/playtest"
	"earlychorus/core/verdict"
	"earlychorus/server/spreadsheet"
	"earlychorus/server/store"
	"earlychorus/server/view"
)

// TestLine is a test and how many have handed it in.
type TestLine struct {
	playtest.Test
	StepID   string `json:"step_id"`
	Name     string `json:"name"`
	Sentence string `json:"sentence"`
	HandedIn int    `json:"handed_in"`
	Of       int    `json:"of" doc:"players it is for, those who are excused on the day left out"`
	Over     bool   `json:"over" doc:"the day it was due is past"`
}

// TestRow is one player's test.
type TestRow struct {
	playtest.Standing
	PlayerID string         `json:"player_id"`
	Name     string         `json:"name"`
	Section  string         `json:"section"`
	Excused  bool           `json:"excused,omitempty" doc:"on the day it is due"`
	Takes    []TestTakeView `json:"takes" nullable:"false" doc:"all that were played, in order"`
	person   store.Player
}

// TestTakeView is a take of a test.
type TestTakeView struct {
	ID     string         `json:"id"`
	Day    string         `json:"day" format:"date"`
	Result verdict.Result `json:"result,omitempty" enum:"clean,nearly,not-yet,cant-tell"`
}

// TestView is a test's results.
type TestView struct {
	TestLine
	Players []TestRow `json:"players" nullable:"false" doc:"in score order"`
}

// testsShown is how long a test is listed after it was due.
const testsShown = 28 // days

// testsOutput lists a class's tests, the next due first.
type testsOutput struct {
	Body struct {
		Tests []TestLine `json:"tests" nullable:"false"`
	}
}

// listTests lists the tests that are open, and those that were due within four weeks.
func (a *API) listTests(ctx context.Context, in *ClassPath) (*testsOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	steps, err := a.Store.TestsOf(ctx, class.ID, class.Day(a.Now()).AddDate(0, 0, -testsShown))
	if err != nil {
		return nil, err
	}
	views, err := a.testsOf(ctx, class, steps)
	out := &testsOutput{}
	out.Body.Tests = []TestLine{}
	for _, v := range views {
		out.Body.Tests = append(out.Body.Tests, v.TestLine)
	}
	return out, err
}

// TestPath names a test of a class.
type TestPath struct {
	Class string `path:"class" format:"uuid"`
	Step  string `path:"step" format:"uuid"`
}

// testOutput is a test's results.
type testOutput struct{ Body TestView }

// showTest answers who has handed a test in, and how it went.
func (a *API) showTest(ctx context.Context, in *TestPath) (*testOutput, error) {
	class, err := a.Store.ClassFor(ctx, a.who(ctx), in.Class)
	if err != nil {
		return nil, err
	}
	v, err := a.testOf(ctx, class, in.Step)
	return &testOutput{v}, err
}

func (a *API) testOf(ctx context.Context, class store.Class, stepID string) (TestView, error) {
	step, err := a.Store.StepOfClass(ctx, class.ID, stepID)
	if err != nil {
		return TestView{}, err
	}
	if step.Test == nil {
		return TestView{}, store.ErrNotFound
	}
	views, err := a.testsOf(ctx, class, []store.Step{step})
	if err != nil {
		return TestView{}, err
	}
	return views[0], nil
}

// testsOf works tests out for everybody they are for: four questions, however many there are.
func (a *API) testsOf(ctx context.Context, class store.Class, steps []store.Step) ([]TestView, error) {
	if len(steps) == 0 {
		return nil, nil
	}
	players, err := a.Store.Players(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	ids := make([]string, len(steps))
	for n, s := range steps {
		ids[n] = s.ID
	}
	takes, err := a.Store.TakesOfTests(ctx, ids, "")
	if err != nil {
		return nil, err
	}
	first := slices.MinFunc(steps, func(a, b store.Step) int { return a.LastDay.Compare(b.LastDay) })
	excused, err := a.Store.ExceptionsSince(ctx, class.ID, first.LastDay)
	if err != nil {
		return nil, err
	}
	views := make([]TestView, len(steps))
	for n, step := range steps {
		item, err := step.Item()
		if err != nil {
			return nil, err
		}
		v := TestView{TestLine: TestLine{
			Test:     *step.Test,
			StepID:   step.ID,
			Name:     item.Name(),
			Sentence: item.Step.Sentence(),
			Over:     class.Day(a.Now()).After(step.LastDay),
		}, Players: []TestRow{}}
		for _, p := range inScoreOrder(players) {
			p.Class = class
			built, err := p.Plays()
			if err != nil {
				return nil, err
			}
			who := exercise.Player{Instrument: built}
			who.Known, who.New = p.NotesOn(step.FirstDay)
			if item.AsksOf(who) {
				v.add(rowOf(step, p, built, takes, excused))
			}
		}
		views[n] = v
	}
	return views, nil
}

// inScoreOrder are players as a score has them.
func inScoreOrder(players []store.Player) []store.Player {
	at := map[string]int{}
	for n, i := range instrument.Band() {
		at[i.Key] = n
	}
	out := slices.Clone(players)
	slices.SortStableFunc(out, func(a, b store.Player) int { return at[a.Instrument] - at[b.Instrument] })
	return out
}

// rowOf is how one player's test stands.
func rowOf(
	step store.Step, p store.Player, i instrument.Instrument, takes []store.TestTake, excused []store.Exception,
) TestRow {
	row := TestRow{
		Standing: store.StandingIn(*step.Test, step.ID, p.ID, takes),
		PlayerID: p.ID,
		Name:     p.FullName(),
		Section:  i.Section,
		Takes:    []TestTakeView{},
		person:   p,
	}
	for _, t := range takes {
		if t.StepID == step.ID && t.PlayerID == p.ID {
			row.Takes = append(row.Takes, TestTakeView{t.TakeID, view.Date(t.Day), t.Result})
		}
	}
	away := slices.DeleteFunc(slices.Clone(excused), func(e store.Exception) bool {
		return step.LastDay.Before(e.FirstDay) || step.LastDay.After(e.LastDay)
	})
	row.Excused = store.Excused(away, p.ID, step.ID)
	return row
}

// add counts a player in.
func (v *TestView) add(row TestRow) {
	v.Players = append(v.Players, row)
	if row.Used > 0 {
		v.HandedIn++
	}
	if row.Used > 0 || !row.Excused {
		v.Of++
	}
}

// takeOutTest answers a test's results as a list.
func (a *API) takeOutTest(w http.ResponseWriter, r *http.Request) error {
	class, err := a.classAsked(r)
	if err != nil {
		return err
	}
	if !store.IsID(chi.URLParam(r, "step")) {
		return store.ErrNotFound
	}
	v, err := a.testOf(r.Context(), class, chi.URLParam(r, "step"))
	if err != nil {
		return err
	}
	attach(w, "text/csv; charset=utf-8", "test.csv")
	out := spreadsheet.NewWriter(w)
	_ = out.Write(
		[]string{"test", "due", "student_id", "name", "section", "result", "points", "out_of", "takes", "excused"},
	)
	for _, p := range v.Players {
		excused := ""
		if p.Excused {
			excused = "yes"
		}
		_ = out.Write([]string{ // the asker may be gone
			v.Name, v.Due, numberOf(p.person), p.Name, p.Section, string(p.Result),
			strconv.Itoa(playtest.Points(p.Result)), strconv.Itoa(playtest.MostPoints), strconv.Itoa(len(p.Takes)),
			excused,
		})
	}
	out.Flush()
	return nil
}
