package plan_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/plan"
	"earlychorus/core/verdict"
)

func dayOf(t *testing.T, items []plan.Item, b plan.Band, at plan.Place, minutes float64) []plan.Section {
	t.Helper()
	out, err := plan.DayLoad(items, b, at, minutes)
	require.NoError(t, err)
	return out
}

// Sums worked by hand. A counted long tone of two notes: 4 clicks, 8, 8 of rest,
// 8 and 1 beats at 60 are 29 s.
func TestSumsWorkedByHand(t *testing.T) {
	long := item("long", "long-tone-counted", nil)
	class := dayOf(t, []plan.Item{long}, band(t, 2, "trombone"), plan.InClass, 0)[0].Load
	assert.InDelta(t, 10+29, float64(class.Total), 1e-9, "ten seconds to read")
	assert.InDelta(t, 16, float64(class.Sound), 1e-9)
	assert.InDelta(t, 16, float64(class.Lip), 1e-9)

	home := dayOf(t, []plan.Item{long}, band(t, 2, "trombone"), plan.AtHome, 0)[0].Load
	assert.InDelta(t, 10+1.5*(29+20), float64(home.Total), 1e-9, "half a take more, twenty seconds to record and look")

	long.Times = 2
	twice := dayOf(t, []plan.Item{long}, band(t, 2, "flute"), plan.InClass, 0)[0].Load
	assert.InDelta(t, 10+58, float64(twice.Total), 1e-9)
	assert.InDelta(t, 32, float64(twice.Sound), 1e-9)
	assert.Zero(t, twice.Lip, "a flute has none")

	// Buzz at once: 4 clicks, four buzzes of 4 beats, three rests of 6, 1: 39 s at 60;
	// ten to read, ten to take the mouthpiece out.
	buzz := dayOf(t, []plan.Item{item("buzz", "buzz-at-once", nil)}, band(t, 2, "trumpet"), plan.InClass, 0)[0].Load
	assert.InDelta(t, 10+10+39, float64(buzz.Total), 1e-9)
	assert.InDelta(t, 16, float64(buzz.Lip), 1e-9)
	assert.InDelta(t, 16, float64(buzz.Buzz), 1e-9, "its rests are shorter than a minute")

	// Set-up: six seconds an item.
	rounds := dayOf(
		t,
		[]plan.Item{item("b", "breath-pattern", set{"rounds": 12})},
		band(t, 2, "oboe"),
		plan.InClass,
		0,
	)[0]
	assert.Equal(t, 12, rounds.Load.Rounds)
	assert.Empty(t, rounds.Over)
}

func TestInClassEveryoneWaitsForTheSlowest(t *testing.T) {
	items := []plan.Item{item("buzz", "buzz-at-once", nil), item("long", "long-tone-counted", nil)}
	sections := dayOf(t, items, band(t, 2, "flute", "trumpet"), plan.InClass, 0)
	assert.Equal(t, sections[0].Load.Total, sections[1].Load.Total)
	assert.Equal(t, []string{"buzz"}, sections[0].Waits)
	assert.Empty(t, sections[1].Waits)
	home := dayOf(t, items, band(t, 2, "flute", "trumpet"), plan.AtHome, 0)
	assert.Less(t, home[0].Load.Total, home[1].Load.Total, "at home nobody waits for what is not theirs")
}

func TestBudgetsAreNamedWithTheirNumbers(t *testing.T) {
	buzz := item("buzz", "buzz-at-once", set{"beats": 8, "repeats": 4})
	buzz.Times = 3
	over := dayOf(t, []plan.Item{buzz}, band(t, 2, "horn"), plan.InClass, 30)[0].Over
	require.Len(t, over, 1)
	assert.Equal(t, "buzz", over[0].Budget)
	assert.Equal(t, "Horn in F would buzz 96 s without a pause of 60 s", over[0].Text)

	// A pause of a minute begins the count again.
	rest := item("breath", "breath-pattern", set{"rounds": 4})
	once := item("buzz", "buzz-at-once", set{"beats": 8, "repeats": 4})
	assert.Empty(t, dayOf(t, []plan.Item{once, rest, once}, band(t, 2, "horn"), plan.InClass, 30)[0].Over)

	pairs := item("pairs", "register-pair", set{"pairs": 6, "beats": 8})
	pairs.Times = 6
	over = dayOf(t, []plan.Item{pairs}, band(t, 2, "clarinet"), plan.InClass, 30)[0].Over
	require.NotEmpty(t, over)
	assert.Equal(t, "break", over[0].Budget)
	assert.Contains(t, over[0].Text, "5:00 are enough")
	assert.NotContains(
		t,
		dayOf(t, []plan.Item{pairs}, band(t, 2, "flute"), plan.InClass, 30)[0].Over,
		"break",
		"only clarinets have a break",
	)

	lips := item("long", "long-tone-counted", set{"notes": []int{0, 2, 4, 5, 7, 4}, "rest_beats": 2, "beats": 14})
	lips.Times = 4
	assert.Equal(t, "lip", dayOf(t, []plan.Item{lips}, band(t, 1, "tuba"), plan.InClass, 30)[0].Over[0].Budget)
	assert.Empty(
		t,
		dayOf(t, []plan.Item{lips}, band(t, 2, "tuba"), plan.InClass, 30)[0].Over,
		"only in the first weeks",
	)

	total := dayOf(t, []plan.Item{lips}, band(t, 2, "tuba"), plan.InClass, 6)[0].Over
	assert.Equal(t, "total", total[0].Budget)
	assert.Equal(t, "6:46 of 6:00", total[0].Text)
}

func TestFitSaysWhatWasCutAndWhy(t *testing.T) {
	items := []plan.Item{
		item("breath", "breath-pattern", set{"rounds": 8}),
		item("long", "long-tone-counted", nil),
		item("swell", "swell", nil),
	}
	items[2].Wanted = 1
	fitted, err := plan.Fit(items, band(t, 2, "flute", "tuba"), plan.InClass, 3)
	require.NoError(t, err)
	// 8 rounds of 20 s, 39 s and 31 + 10 s are more than three minutes; five rounds
	// with both others are 164 + ...
	require.NotEmpty(t, fitted.Cuts)
	assert.Equal(t, "breath", fitted.Cuts[0].Key)
	assert.False(t, fitted.Cuts[0].Dropped, "repeats go before steps do")
	assert.Contains(t, fitted.Cuts[0].Says, "of 8 rounds")
	assert.Contains(t, fitted.Cuts[0].Why, "of 3:00")
	assert.LessOrEqual(t, float64(fitted.Total), 180.5)

	items[0].Pinned = true
	pinned, err := plan.Fit(items, band(t, 2, "flute", "tuba"), plan.InClass, 3)
	require.NoError(t, err)
	for _, c := range pinned.Cuts {
		assert.NotEqual(t, "breath", c.Key)
	}
	impossible, err := plan.Fit(items, band(t, 2, "flute"), plan.InClass, 1)
	require.NoError(t, err)
	assert.Len(t, impossible.Items, 1)
	assert.NotEmpty(t, impossible.Beyond)
}

func keys(items []plan.Item) (out []string) {
	for _, i := range items {
		out = append(out, i.Key)
	}
	return out
}

func TestSchoolsOfOrder(t *testing.T) {
	items := []plan.Item{
		item(
			"walk",
			"five-note-walk",
			nil,
		),
		item("high", "long-tone-counted", set{"notes": []int{7, 9}}),
		item("set-up", "set-up", nil),
		item(
			"low",
			"long-tone-counted",
			set{"notes": []int{-5, -3}},
		),
		item("home", "long-tone-counted", set{"notes": []int{0}}),
		item("buzz", "buzz-at-once", nil),
	}
	for school, want := range map[exercise.Beginning][]string{
		"low":     {"set-up", "buzz", "low", "home", "high", "walk"},
		"high":    {"set-up", "buzz", "high", "home", "low", "walk"},
		"easiest": {"set-up", "buzz", "home", "low", "high", "walk"},
	} {
		b := band(t, 3, "trumpet", "trombone")
		b.Conventions.Begin = school
		got := plan.Order(items, b)
		assert.Equal(t, want, keys(got.Items), school)
		assert.NotEmpty(t, got.Reason)
	}
}

func TestRestsAreFilledToTheSameBeats(t *testing.T) {
	b := band(t, 2, "trombone", "flute")
	buzz, err := exercise.New("buzz-at-once", set{"beats": 8}).Score(b.Players[0], b.Conventions)
	require.NoError(t, err)
	filled := plan.FillRests(buzz)
	assert.Equal(t, buzz.Beats(), filled.Beats())
	assert.Greater(t, len(filled.Segments), len(buzz.Segments))
	at := music.Beats(0)
	for _, seg := range filled.Segments {
		assert.Equal(t, at, seg.StartBeat)
		at += seg.Beats
	}
	assert.Equal(t, buzz.Targets(), filled.Targets(), "the buzzing itself is as it was")

	flute, err := plan.Meanwhile(buzz, b.Players[1], b.Conventions)
	require.NoError(t, err)
	assert.Equal(t, buzz.Beats(), flute.Beats())
	for _, mine := range flute.Targets() {
		for _, theirs := range buzz.Targets() {
			overlap := min(
				mine.StartBeat+mine.Beats,
				theirs.StartBeat+theirs.Beats,
			) - max(
				mine.StartBeat,
				theirs.StartBeat,
			)
			assert.LessOrEqual(t, float64(overlap), 0., "one sounds while the others rest")
		}
	}
	long, err := exercise.New("long-tone-counted", nil).Score(b.Players[1], b.Conventions)
	require.NoError(t, err)
	assert.Equal(t, long, plan.FillRests(long), "only buzzing needs it")
}

func takes(who, key string, result verdict.Result, cause measure.Cause, count int) (out []plan.Observation) {
	for range count {
		out = append(out, plan.Observation{
			Player:     who,
			Instrument: key,
			Result:     result,
			Cause:      cause,
		})
	}
	return out
}

func TestSuggestionsCarryTheirReasonAndCounts(t *testing.T) {
	var heard []plan.Observation
	add := func(o []plan.Observation) { heard = append(heard, o...) }
	add(takes("a", "clarinet", verdict.NotYet, measure.CauseBreak, 4))
	add(takes("b", "clarinet", verdict.Nearly, measure.CauseBreak, 2))
	add(takes("c", "clarinet", verdict.Clean, "", 3))
	add(takes("d", "tuba", verdict.NotYet, measure.CauseGap, 3)) // three takes are too few to say
	add(takes("e", "flute", verdict.NotYet, measure.CauseCentre, 9))
	add(takes("f", "flute", verdict.CantTell, measure.CauseRecording, 9)) // and this is nobody's
	got := plan.Suggest(nil, heard, []plan.StuckRung{{
		Player:     "g",
		Instrument: "bassoon",
		Ladder:     "bassoon-low",
		Rung:       4,
		Tries:      7,
	}})
	require.Len(t, got, 2, "one flute alone is not the section's fault")
	assert.Equal(t, "Clarinets: the note jumps with 2 of 3 players (6 takes).", got[0].Reason)
	assert.Equal(t, "register-pair", got[0].Item.Step.Kind.Key)
	assert.Equal(t, []string{"clarinet"}, got[0].Item.For)
	assert.Equal(
		t,
		"Bassoons: Low notes on the bassoon, 1 stuck at rung 4 (7 tries); from the rung before.",
		got[1].Reason,
	)
	assert.Equal(t, 3., got[1].Item.Step.Values["rung"])
}

func TestWhatMostSectionsShareIsTheBands(t *testing.T) {
	var heard []plan.Observation
	for n, key := range []string{"flute", "clarinet", "trumpet"} {
		for _, who := range []string{"a", "b", "c"} {
			cause := measure.CauseSteadiness
			if n == 2 {
				cause = measure.CausePartial
			}
			heard = append(heard, takes(key+who, key, verdict.NotYet, cause, 2)...)
		}
	}
	got := plan.Suggest(nil, heard, nil)
	require.Len(t, got, 2)
	assert.Equal(t, "The whole band: the pitch wavers with 6 of 9 players (12 takes).", got[0].Reason)
	assert.Empty(t, got[0].Item.For)
	assert.Equal(t, "sing-first", got[1].Item.Step.Kind.Key, "brass on the wrong partial")
}

// Every cause but those of setting and recording has a step that mends it, for
// every instrument.
func TestEveryFaultHasARemedyThatSuits(t *testing.T) {
	for _, cause := range measure.Causes() {
		for _, i := range instrument.All() {
			var heard []plan.Observation
			for _, who := range []string{"a", "b", "c"} {
				heard = append(heard, takes(who, i.Key, verdict.NotYet, cause, 2)...)
			}
			got := plan.Suggest(nil, heard, nil)
			switch cause {
			case measure.CauseRecording, measure.CauseNobody, measure.CauseWrongInstrument, measure.CauseNotDone:
				assert.Empty(t, got, cause)
				continue
			case measure.CauseSlide, measure.CausePlateaus, measure.CauseApart:
				if i.Family != instrument.Brass {
					continue // only lips have these
				}
			}
			require.NotEmpty(t, got, "%s on %s", cause, i.Key)
			assert.True(t, got[0].Item.Step.Suits(i), "%s on %s: %s", cause, i.Key, got[0].Item.Step.Kind.Key)
		}
	}
}

// A remedy that stood in the plan for a fortnight and changed nothing is not
// proposed again: the next in line is, and in the end the director hears them.
func TestSuggestionsChangeCourse(t *testing.T) {
	var heard []plan.Observation
	for _, who := range []string{"a", "b", "c"} {
		heard = append(heard, takes(who, "trombone", verdict.NotYet, measure.CauseSteadiness, 3)...)
	}
	first := plan.Suggest(nil, heard, nil)
	require.Len(t, first, 1)
	assert.Equal(t, exercise.KindLongToneCounted, first[0].Item.Step.Kind.Key, "never air pulses for a wobble")
	week := []plan.Item{first[0].Item}
	soon := plan.Suggest(nil, heard, nil, week)[0]
	assert.Equal(t, first[0].Item.Step.Kind, soon.Item.Step.Kind, "one week is too soon")
	second := plan.Suggest(nil, heard, nil, week, week)[0]
	assert.Equal(t, "breath-pattern", second.Item.Step.Kind.Key)
	assert.Equal(t, plan.AddStep, second.Act)
	both := append(week, second.Item)
	// The long tone that everybody plays daily was no remedy for anything.
	daily := plan.Core(exercise.StandardConventions())
	assert.Equal(t, exercise.KindLongToneCounted, plan.Suggest(nil, heard, nil, daily, daily)[0].Item.Step.Kind.Key)
	last := plan.Suggest(nil, heard, nil, both, both)[0]
	assert.Equal(t, plan.HearThem, last.Act)
	assert.Contains(t, last.Reason, "hear them in person")
	assert.Contains(t, last.Reason, "3 of 3 players (9 takes)")
}

func TestTakesThatCannotBeJudgedAskForTheMicrophone(t *testing.T) {
	var heard []plan.Observation
	for _, who := range []string{"a", "b", "c"} {
		heard = append(heard, takes(who, "flute", verdict.CantTell, measure.CauseRecording, 3)...)
	}
	got := plan.Suggest(nil, heard, nil)
	require.Len(t, got, 1)
	assert.Equal(t, plan.CheckMicro, got[0].Act)
	assert.Contains(t, got[0].Reason, "9 of 9 takes could not be judged (3 players)")
}

func TestPlansSurviveTheirJSON(t *testing.T) {
	week := plan.DemoWeek()
	require.NoError(t, week.Check())
	raw, err := json.Marshal(week)
	require.NoError(t, err)
	var again plan.Plan
	require.NoError(t, json.Unmarshal(raw, &again))
	assert.Equal(t, keys(week.Items), keys(again.Items))
	for n := range week.Items {
		assert.Equal(t, week.Items[n].Step.Values, again.Items[n].Step.Values)
		assert.Equal(t, week.Items[n].Days, again.Items[n].Days)
	}
	var bad plan.Plan
	assert.ErrorContains(t, json.Unmarshal([]byte(`{"items":[{"days":["XX"]}]}`), &bad), "is no day")
	assert.Error(t, json.Unmarshal([]byte(`{"items":[{"step":{"kind":"no-such"}}]}`), &bad))
}

func TestPlansAreCheckedWithTheItemNamed(t *testing.T) {
	for field, spoil := range map[string]func(*plan.Item){
		"items[1].times": func(i *plan.Item) { i.Times = 9 }, "items[1].wanted": func(i *plan.Item) { i.Wanted = 4 },
		"items[1].at":  func(i *plan.Item) { i.At = "garden" },
		"items[1].for": func(i *plan.Item) { i.For = []string{"kazoo"} },
	} {
		p := plan.Plan{Items: []plan.Item{item("a", "swell", nil), item("b", "swell", nil)}}
		spoil(&p.Items[1])
		var said exercise.ParameterError
		require.ErrorAs(t, p.Check(), &said)
		assert.Equal(t, field, said.Field)
		assert.NotEmpty(t, said.Remedy)
	}
	var many plan.Plan
	for range 13 {
		many.Items = append(many.Items, item("x", "swell", nil))
	}
	assert.ErrorContains(t, many.Check(), "too many")
}

// The demo's week uses at least ten kinds, and every day of it fits.
func TestTheDemoWeekFits(t *testing.T) {
	week := plan.DemoWeek()
	kinds := map[string]bool{}
	for _, i := range week.Items {
		kinds[i.Step.Kind.Key] = true
	}
	assert.GreaterOrEqual(t, len(kinds), 10)
	for day := plan.Day(0); day < 5; day++ {
		items := week.OfDay(day, plan.InClass)
		sections := dayOf(t, items, wholeBand(t, 2), plan.InClass, 8)
		for _, s := range sections {
			assert.Empty(t, s.Over, "day %d, %s", day, s.Instrument)
		}
	}
}

// A director's own line is tried in its order: a kind of ours keeps what we ask of it,
// another comes as the catalogue has it, and an empty line is heard in person.
func TestADirectorsOwnRemedies(t *testing.T) {
	heard := []plan.Observation{}
	for _, who := range []string{"ada", "ben", "cal"} {
		for range 3 {
			heard = append(heard, plan.Observation{
				Player:     who,
				Instrument: "flute",
				Cause:      measure.CauseSteadiness,
				Result:     verdict.NotYet,
			})
		}
	}
	kindOf := func(book plan.RemedyBook) string {
		got := plan.Suggest(book, heard, nil)
		require.NotEmpty(t, got)
		if got[0].Act != plan.AddStep {
			return string(got[0].Act)
		}
		return got[0].Item.Step.Kind.Key
	}
	assert.Equal(t, exercise.KindLongToneCounted, kindOf(nil))
	assert.Equal(t, "sing-first", kindOf(plan.RemedyBook{"steadiness": {"sing-first", "long-tone-counted"}}))
	assert.Equal(t, string(plan.HearThem), kindOf(plan.RemedyBook{"steadiness": {}}))
	assert.Equal(t, "echo", kindOf(plan.RemedyBook{"steadiness": {"buzz-slide", "of-another-version", "echo"}}),
		"flutes do not buzz")
	none := plan.Suggest(plan.RemedyBook{"steadiness": {}}, heard, nil)[0]
	assert.Contains(t, none.Reason, "No step is assigned for it", "nobody practiced it for two weeks")
	for key, book := range map[string]plan.RemedyBook{
		"nothing":    {"nothing": {"sing-first"}},
		"steadiness": {"steadiness": {"no-such-kind"}},
	} {
		wrong, remedy := book.Check()
		assert.Equal(t, key, wrong)
		assert.NotEmpty(t, remedy)
	}
	for _, line := range (plan.RemedyBook{"steadiness": {"sing-first"}}).Lines() {
		if line.Key == "steadiness" {
			assert.Equal(t, []string{"sing-first"}, line.Kinds)
			assert.NotEqual(t, line.Kinds, line.Usual)
		}
		assert.NotEmpty(t, line.Words, line.Key)
	}
}
