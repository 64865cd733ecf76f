package progress_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/ear"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/progress"
	"earlychorus/core/verdict"
)

// Sen's interval holds the true slope about 19 times in 20, whatever the slope:
// the definition of the interval, tried on noise with known slopes.
func TestTheTrendsIntervalHoldsTheTruth(t *testing.T) {
	chance := rand.New(rand.NewPCG(5, 6))
	for _, perWeek := range []float64{0, 0.7, -3} {
		held, clear := 0, 0
		const tries = 600
		for range tries {
			var points []progress.Point
			for day := range 25 {
				points = append(
					points,
					progress.Point{Day: float64(day), Value: 5 + perWeek*float64(day)/7 + chance.NormFloat64()},
				)
			}
			trend, ok := progress.TrendOf(points)
			require.True(t, ok)
			if trend.Low <= perWeek && perWeek <= trend.High {
				held++
			}
			if trend.Clear {
				clear++
			}
		}
		assert.InDelta(t, 0.95, float64(held)/tries, 0.03, "slope %v", perWeek)
		if perWeek == 0 {
			assert.Less(t, float64(clear)/tries, 0.08, "nothing is claimed where nothing is")
		}
		if perWeek == -3 {
			assert.Greater(t, float64(clear)/tries, 0.95)
		}
	}
}

func TestATrendNeedsEnough(t *testing.T) {
	_, ok := progress.TrendOf([]progress.Point{{1, 1}, {2, 2}, {3, 3}, {4, 4}})
	assert.False(t, ok)
	_, ok = progress.TrendOf([]progress.Point{{1, 1}, {1, 2}, {1, 3}, {1, 4}, {1, 5}})
	assert.False(t, ok, "one day shows no way")
	trend, ok := progress.TrendOf([]progress.Point{{5, 5}, {1, 1}, {2, 2}, {4, 4}, {3, 300}})
	require.True(t, ok)
	assert.InDelta(t, 7, trend.PerWeek, 1e-9, "a wild point and the order they come in change nothing")
}

func TestTheNoteMapCountsAndFindsTheWall(t *testing.T) {
	tally := func(m music.MIDI, player string, takes, good int, centre float64) progress.Tally {
		all := slices.Repeat([]float64{centre}, takes)
		return progress.Tally{
			Player:     player,
			Sounding:   m,
			Takes:      takes,
			Good:       good,
			Centres:    all,
			Steadiness: all,
		}
	}
	var tallies []progress.Tally
	for n := range 6 {
		player := fmt.Sprint(n)
		tallies = append(tallies, tally(58, player, 1, 1, 2))
		switch {
		case n == 0: // one who tries often counts once in the spread
			tallies = append(tallies, tally(60, player, 21, 1, 60))
		case n == 1:
			tallies = append(tallies, tally(60, player, 1, 1, 10))
		default:
			tallies = append(tallies, tally(60, player, 1, 0, 10))
		}
	}
	tallies = append(tallies, tally(72, "0", 1, 0, 90)) // tried once: a count, no wall
	tallies[0].Centres = nil                            // nothing to be trusted: no place in the spread
	got := progress.NoteMap(tallies)
	require.Len(t, got, 3)
	assert.Equal(t, []music.MIDI{58, 60, 72}, []music.MIDI{got[0].Sounding, got[1].Sounding, got[2].Sounding})
	assert.Equal(t, 6, got[0].Players)
	assert.Equal(t, 5, got[0].Centre.Of)
	assert.Equal(t, 26, got[1].Takes)
	assert.Equal(t, 2, got[1].Good)
	assert.Equal(t, 6, got[1].Centre.Of)
	assert.InDelta(t, 10, got[1].Centre.Middle, 1e-9)
	assert.Equal(t, []bool{false, true, false}, []bool{got[0].Wall, got[1].Wall, got[2].Wall})
	assert.Empty(t, progress.NoteMap(nil))
}

func TestWhatASectionHasInCommon(t *testing.T) {
	var takes []progress.Take
	for n := range 7 {
		takes = append(takes, progress.Take{
			ID:      fmt.Sprint("first", n),
			Player:  fmt.Sprint(n),
			Section: "Clarinets",
			Step:    "s",
			Result:  verdict.Clean,
			Notes:   "E3 B4",
		})
		r, c := verdict.NotYet, measure.CauseBreak
		if n >= 5 {
			r, c = verdict.Clean, ""
		}
		takes = append(takes, progress.Take{
			ID:      fmt.Sprint("t", n),
			Player:  fmt.Sprint(n),
			Section: "Clarinets",
			Step:    "s",
			Result:  r,
			Cause:   c,
			Notes:   "E3 B4",
		})
	}
	takes = append(takes, progress.Take{
		ID:      "x",
		Player:  "flute",
		Section: "Flutes",
		Step:    "s",
		Result:  verdict.NotYet,
		Cause:   measure.CauseGap,
	})
	got := progress.Commons(takes, map[string]string{"s": "Register pair"})
	require.Len(t, got, 1, "one flute is nobody's common fault")
	assert.Equal(t, "5 of 7 clarinets jumped to another partial on E and B: Register pair.", got[0].Sentence)
	assert.Equal(t, []string{"t0", "t1", "t2", "t3", "t4"}, got[0].Takes, "the latest of each")

	// What most sections share is said once, of the class.
	takes = nil
	for n, s := range []string{"Flutes", "Flutes", "Clarinets", "Clarinets", "Trombones", "Trombones"} {
		takes = append(takes, progress.Take{
			ID:      fmt.Sprint(n),
			Player:  fmt.Sprint(n),
			Section: s,
			Step:    "s",
			Result:  verdict.Nearly,
			Cause:   measure.CauseHeld,
		})
	}
	got = progress.Commons(takes, map[string]string{"s": "Long tone"})
	require.Len(t, got, 1)
	assert.Equal(t, "6 of 6 players did not hold it long enough: Long tone.", got[0].Sentence)
}

// Every cause a verdict may name has its words.
func TestEveryCauseCanBeSaidOfASection(t *testing.T) {
	for _, c := range measure.Causes() {
		two := []progress.Take{{
			ID:      "a",
			Player:  "a",
			Section: "Flutes",
			Step:    "s",
			Result:  verdict.NotYet,
			Cause:   c,
		}, {
			ID:      "b",
			Player:  "b",
			Section: "Flutes",
			Step:    "s",
			Result:  verdict.NotYet,
			Cause:   c,
		}}
		got := progress.Commons(two, map[string]string{"s": "Step"})
		require.Len(t, got, 1, c)
		assert.Regexp(t, `^2 of 2 flutes [a-z].+: Step\.$`, got[0].Sentence, c)
		assert.NotContains(t, got[0].Sentence, "flutes :", c)
	}
}

func heard(id, player string, result verdict.Result, onset music.Seconds, events ...ear.Event) progress.Candidate {
	return progress.Candidate{
		Take:   id,
		Player: player,
		Result: result,
		Words:  "C4 jumps",
		Cut: progress.CutOf(
			ear.Analysis{
				Seconds: 30,
				Notes:   []ear.Note{{Played: true, Onset: onset, Release: onset + 8}},
				Events:  events,
			},
			0,
		),
	}
}

func TestAnExcerptIsCutAroundWhatMatters(t *testing.T) {
	c := heard("t", "p", verdict.NotYet, 5, ear.Event{
		Kind:     ear.Break,
		At:       9,
		Duration: 0.5,
		Note:     0,
	})
	got := progress.ListenIn([]progress.Candidate{c}, 60, progress.StandardWeights())
	require.Len(t, got, 1)
	assert.InDelta(t, 7.5, float64(got[0].From), 1e-9)
	assert.InDelta(t, 11, float64(got[0].To), 1e-9)
	assert.Equal(t, "where it happened", got[0].At)
	assert.Equal(t, "not yet: C4 jumps", got[0].Why[0].Text)

	none := progress.ListenIn([]progress.Candidate{heard("t", "p", verdict.Clean, 5)}, 60, progress.StandardWeights())
	assert.Empty(t, none, "a clean take that is nothing new need not be heard")
}

// Somebody who was led back should be heard, before a single try on the rung.
func TestWhoWasLedBackIsHeard(t *testing.T) {
	got := progress.ListenIn([]progress.Candidate{{
		Take:   "t",
		Player: "p",
		Result: verdict.Clean,
		Stuck:  true,
	}}, 60, progress.StandardWeights())
	require.Len(t, got, 1)
	assert.Equal(t, "was led back on a ladder", got[0].Why[0].Text)
	got = progress.ListenIn([]progress.Candidate{{
		Take:       "t",
		Player:     "p",
		Result:     verdict.Clean,
		Stuck:      true,
		StuckTries: 5,
	}}, 60, progress.StandardWeights())
	assert.Equal(t, "stuck on a rung after 5 tries", got[0].Why[0].Text)
}

// Of takes that were heard before cuts were kept, the beginning is played.
func TestWithoutACutTheBeginningIsHeard(t *testing.T) {
	got := progress.ListenIn(
		[]progress.Candidate{{Take: "t", Player: "p", Result: verdict.CantTell}},
		60,
		progress.StandardWeights(),
	)
	require.Len(t, got, 1)
	assert.Equal(t, progress.Cut{From: 0, To: 10, At: "the beginning"}, got[0].Cut)
}

// A cut lies within the recording where that is long enough, and is neither too
// short to hear nor longer than ten seconds, whatever was measured.
func TestACutCanAlwaysBePlayed(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a := ear.Analysis{Seconds: music.Seconds(rapid.Float64Range(3, 60).Draw(t, "seconds"))}
		for n := range rapid.IntRange(0, 4).Draw(t, "notes") {
			at := rapid.Float64Range(0, float64(a.Seconds)).Draw(t, "onset")
			long := rapid.Float64Range(0, float64(a.Seconds)-at).Draw(t, "long")
			a.Notes = append(
				a.Notes,
				ear.Note{
					Played:  rapid.Bool().Draw(t, "played"),
					Onset:   music.Seconds(at),
					Release: music.Seconds(at + long),
				},
			)
			if rapid.Bool().Draw(t, "event") {
				a.Events = append(a.Events, ear.Event{
					Kind:     rapid.SampledFrom([]ear.EventKind{ear.Gap, ear.Break, ear.Chirp}).Draw(t, "kind"),
					Note:     n,
					At:       music.Seconds(at),
					Duration: music.Seconds(long),
				})
			}
		}
		c := progress.CutOf(a, rapid.IntRange(-1, 5).Draw(t, "decided"))
		assert.GreaterOrEqual(t, float64(c.From), 0.0)
		assert.LessOrEqual(t, float64(c.To-c.From), 10+1e-9)
		assert.GreaterOrEqual(t, float64(c.To-c.From), 3-1e-9)
		assert.NotEmpty(t, c.At)
	})
}

func TestPainComesFirstAndWeightsAreTheDirectors(t *testing.T) {
	pain, stuck := heard("a", "ann", verdict.Clean, 3), heard("b", "bob", verdict.NotYet, 3)
	pain.Flag, stuck.Stuck, stuck.StuckTries = progress.Pain, true, 6
	got := progress.ListenIn([]progress.Candidate{stuck, pain}, 60, progress.StandardWeights())
	assert.Equal(t, []string{"a", "b"}, []string{got[0].Take, got[1].Take})
	own := progress.StandardWeights().With(progress.Weights{progress.Pain: 0})
	require.NoError(t, own.Check())
	got = progress.ListenIn([]progress.Candidate{stuck, pain}, 60, own)
	require.Len(t, got, 1)
	assert.Equal(t, "b", got[0].Take)
	assert.Error(t, progress.Weights{"loudest": 5}.Check())
	assert.Error(t, progress.Weights{progress.Pain: 101}.Check())
}

// The choice is the best there is: no other set of excerpts fits into the time
// and weighs more, two of a player at most.
func TestTheChoiceIsTheBestThatFits(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var all []progress.Candidate
		for n := range rapid.IntRange(0, 9).Draw(t, "takes") {
			c := heard(
				fmt.Sprint(n),
				fmt.Sprint(rapid.IntRange(0, 5).Draw(t, "player")),
				rapid.SampledFrom([]verdict.Result{verdict.CantTell, verdict.NotYet, verdict.Clean}).Draw(t, "result"),
				2,
			)
			c.Cut.To = c.Cut.From + music.Seconds(rapid.IntRange(3, 10).Draw(t, "long"))
			c.FirstClean, c.WasClean = rapid.Bool().Draw(t, "first"), rapid.Bool().Draw(t, "was")
			all = append(all, c)
		}
		seconds := music.Seconds(rapid.IntRange(0, 60).Draw(t, "seconds"))
		got := progress.ListenIn(all, seconds, progress.StandardWeights())
		assert.LessOrEqual(t, float64(progress.TimeFor(got)), float64(seconds)+1e-9)
		every := progress.ListenIn(all, 1e4, progress.StandardWeights()) // all that may be chosen
		best := 0
		for set := range 1 << len(every) {
			var some []progress.Excerpt
			for n, e := range every {
				if set&(1<<n) != 0 {
					some = append(some, e)
				}
			}
			tenths := 0
			for _, e := range some {
				tenths += int(math.Ceil(10*float64(e.To-e.From+4) - 1e-3))
			}
			if tenths <= int(10*seconds) {
				best = max(best, total(some))
			}
		}
		assert.Equal(t, best, total(got))
		players := map[string]int{}
		for _, e := range got {
			players[e.Player]++
			assert.LessOrEqual(t, players[e.Player], 2)
		}
	})
}

func total(list []progress.Excerpt) (sum int) {
	for _, e := range list {
		sum += e.Score
	}
	return sum
}

func TestGrowthIsSaidAsFarAsItIsKnown(t *testing.T) {
	var notes []progress.Note
	for day := range 30 {
		if day%7 >= 5 {
			continue
		}
		for n := range 3 {
			notes = append(notes, progress.Note{
				Take:       fmt.Sprint(day, n),
				Day:        day,
				Trusted:    n < 2,
				Centre:     music.Cents(30 - day),
				Steadiness: 8,
				Held:       music.Seconds(4 + 0.2*float64(day)),
				Free:       n == 2,
			})
		}
		notes = append(
			notes,
			progress.Note{Take: fmt.Sprint(day, "counted"), Day: day, Held: 30},
		) // as many beats as asked
	}
	got := progress.GrowthOf(notes)
	require.Len(t, got.Weeks, 5)
	assert.Equal(
		t,
		[]int{0, 7, 14, 21, 28},
		[]int{got.Weeks[0].From, got.Weeks[1].From, got.Weeks[2].From, got.Weeks[3].From, got.Weeks[4].From},
	)
	assert.Equal(t, 5, got.Weeks[0].Days)
	assert.Len(t, got.Weeks[0].Takes, 20)
	assert.InDelta(t, 4.8, got.Weeks[0].BestHold, 1e-9)
	assert.Equal(t, 10, got.Weeks[0].Notes)
	assert.True(t, got.Hold.Trend.Clear)
	assert.Equal(t, "Longest holds are longer by 1.4 s a week, over 22 days.", got.Hold.Says)
	assert.Equal(t, "Notes are nearer to the middle by 7.0 cents a week, over 22 days.", got.Centre.Says)
	assert.True(t, strings.HasPrefix(got.Steadiness.Says, "No clear change yet"))
	early := progress.GrowthOf(notes[:8])
	assert.Equal(t, "2 days so far: too few to say.", early.Hold.Says)
	assert.Equal(t, "Nothing to say yet.", progress.GrowthOf(notes[:2]).Hold.Says)
	assert.True(t, slices.IsSortedFunc(got.Weeks, func(a, b progress.Week) int { return a.From - b.From }))
}

func BenchmarkListenIn(b *testing.B) {
	var all []progress.Candidate
	for n := range 70 * 8 {
		all = append(all, heard(fmt.Sprint(n), fmt.Sprint(n%70), verdict.NotYet, 2))
	}
	for b.Loop() {
		progress.ListenIn(all, 300, progress.StandardWeights())
	}
}

// Many who are not there yet, each for a cause of their own, are the news of the day: said of
// the class, first. A cause that the class shares says it better.
func TestAStepThatTheClassDoesNotManageYet(t *testing.T) {
	causes := []measure.Cause{measure.CauseBreak, measure.CauseCentre, measure.CauseBegins, measure.CauseChirp}
	var takes []progress.Take
	for n := range 20 {
		take := progress.Take{
			ID:      fmt.Sprint(n),
			Player:  fmt.Sprint(n),
			Section: fmt.Sprint("Section ", n%5),
			Step:    "s",
			Result:  verdict.Clean,
		}
		if n < 9 {
			take.Result, take.Cause = verdict.NotYet, causes[n%len(causes)]
		}
		takes = append(takes, take)
	}
	found := progress.Commons(takes, map[string]string{"s": "Long tone"})
	require.NotEmpty(t, found)
	assert.Equal(t, "9 of 20 players are not there yet: Long tone.", found[0].Sentence)
	assert.Len(t, found[0].Takes, 9)
	for n := range takes[:9] {
		takes[n].Cause = measure.CauseBreak
	}
	for _, c := range progress.Commons(takes, map[string]string{"s": "Long tone"}) {
		assert.NotContains(t, c.Sentence, "not there yet", "the cause is shared, and said")
	}
	few := progress.Commons(takes[5:12], map[string]string{"s": "Long tone"})
	for _, c := range few {
		assert.NotContains(t, c.Sentence, "not there yet", "four are no class")
	}
}
