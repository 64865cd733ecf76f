package exercise_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/scores"
)

func TestSchoolsAreAskedAndAnswered(t *testing.T) {
	c := exercise.StandardConventions()
	for _, s := range exercise.Schools() {
		assert.Equal(t, s.Options[0].Key, c.Get(s.Key), "%s: the first answer is the usual one", s.Key)
		for _, o := range s.Options {
			require.NoError(t, c.Set(s.Key, o.Key))
			assert.Equal(t, o.Key, c.Get(s.Key))
		}
		assert.ErrorContains(t, c.Set(s.Key, "upside down"), s.Question)
	}
	assert.ErrorContains(t, c.Set("hats", "on"), "no such question")
	assert.Empty(t, c.Get("hats"))
}

// Each school that changes a score changes it.
func TestSchoolsChangeTheResult(t *testing.T) {
	for _, c := range []struct {
		school, answer   string
		instrument, kind string
		set              set
		stage            scores.Stage
		says             string
	}{
		{"begin", "high", "trumpet", "high-low-buzz", nil, 2, "High buzz"},
		{"buzz_on", "tube", "trombone", "buzz-at-once", nil, 2, "lead pipe"},
		{"buzz_on", "none", "trombone", "buzz-at-once", nil, 2, "does not buzz"},
		{"buzz_move", "straight", "trombone", "buzz-slide", nil, 2, "straight to the note"},
		{"sing_first", "play", "flute", "sing-first", nil, 2, "plays at once"},
		{"tuning_note", "F", "trumpet", "tuning-note", nil, 2, "Play G"},
		{"tuning_note", "own", "horn", "tuning-note", nil, 2, "Play C"},
		{"start", "breath", "flute", "long-tone-counted", nil, 2, `"breath"`},
		{"end", "marked", "flute", "starts-and-ends", nil, 2, ""},
		{"hard_notes", "graded", "alto-sax", "ladder", set{"rung": 9}, 4, ""},
		{"clarinet_low", "left", "clarinet", "long-tone-counted", set{"notes": []int{-5}}, 4, ""},
		{"clarinet_chromatic", "fork-up", "clarinet", "chromatic-loop", set{"half": "whole"}, 4, ""},
	} {
		standard := exercise.StandardConventions()
		other := standard
		require.NoError(t, other.Set(c.school, c.answer))
		p := exercise.Player{Instrument: named(t, c.instrument), Stage: c.stage}
		step := exercise.New(c.kind, c.set)
		before, after := layFor(t, p, step, standard), layFor(t, p, step, other)
		if c.school != "clarinet_low" { // its chart gives the same low G either way
			assert.NotEqual(t, before, after, "%s %s", c.school, c.answer)
		}
		assert.True(t, strings.Contains(wording(after), c.says), "%s %s: %s", c.school, c.answer, wording(after))
	}
}

// A new long tone opens at the class's own tempo, beats and school.
func TestANewLongToneOpensAsTheClassHoldsIt(t *testing.T) {
	c := exercise.StandardConventions()
	c.LongBeats = 6
	require.NoError(t, c.Set("long_tempo", "60"))
	kind, err := exercise.Get(exercise.KindLongToneCounted)
	require.NoError(t, err)
	opens := c.Opens(kind)
	assert.Equal(t, 6., opens["beats"])
	assert.Equal(t, 60., opens["tempo_bpm"])
	assert.Equal(t, c.LongToneStep().Values, opens)
	c.LongBeats = 40
	assert.ErrorContains(t, c.Check(), "2 to 16 whole beats")
}

func TestTheClassesOwnLongTone(t *testing.T) {
	c := exercise.StandardConventions()
	step := c.LongToneStep()
	assert.Equal(t, exercise.KindLongToneCounted, step.Kind.Key)
	assert.Equal(t, 80., step.Values["tempo_bpm"])
	for answer, kind := range map[string]string{"longest": exercise.KindLongToneLongest, "seconds": "long-tone-chain"} {
		require.NoError(t, c.Set("long_tone", answer))
		assert.Equal(t, kind, c.LongToneStep().Kind.Key)
	}
	c = exercise.StandardConventions()
	require.NoError(t, c.Set("long_tempo", "own"))
	assert.Equal(t, 60., c.LongToneStep().Values["tempo_bpm"], "what the kind usually has")
	require.NoError(t, c.Set("tuner", "hidden"))
	p := exercise.Player{Instrument: named(t, "oboe"), Stage: 2}
	assert.True(t, layFor(t, p, c.LongToneStep(), c).EarsFirst)
	assert.False(t, layFor(t, p, c.LongToneStep(), exercise.StandardConventions()).EarsFirst)
}

// wording is everything a score tells a player.
func wording(s scores.Score) string {
	all := append([]string{}, s.Notices...)
	for _, seg := range s.Segments {
		all = append(all, seg.Text, `"`+string(seg.Articulation)+`"`)
	}
	return strings.Join(all, "\n")
}

// Euphonium C in the staff: 1-3 on three valves, 4 on four (common practice).
func TestTheFourthValveIsASchool(t *testing.T) {
	four, err := named(t, "euphonium").As("4-valve")
	require.NoError(t, err)
	c := exercise.StandardConventions()
	step := exercise.New(exercise.KindLongToneCounted, set{"notes": []int{2}})
	p := exercise.Player{Instrument: four, Stage: 2}
	assert.Equal(t, "1-3", layFor(t, p, step, c).Targets()[0].Fingering.Text)
	require.NoError(t, c.Set("euphonium_c", "4"))
	assert.Equal(t, "4", layFor(t, p, step, c).Targets()[0].Fingering.Text)
}

func TestCautionsStandWhereTheyBelong(t *testing.T) {
	for _, c := range []struct {
		instrument, kind string
		says             string
		not              string
	}{
		{"flute", "breath-pattern", "Dizzy", "Lips hurt"},
		{"trumpet", "buzz-at-once", "Lips hurt", "balloon"},
		{"clarinet", "register-pair", "Five minutes a day", "Lips hurt"},
		{"alto-sax", "overtones", "Jaw", "Five minutes a day"},
		{"flute", "air-off", "Dizzy", "latex"},
		{"trumpet", "excerpt", "Lips hurt", "jaw"},
		{"trombone", "assembly", "lock", "crook"},
		{"alto-sax", "assembly", "crook", "lock"},
		{"flute", "assembly", "no keys", "not shared"},
		{"tuba", "air-meter", "not a medical device", "latex"},
		{"oboe", "swell", "ears", "latex"},
		{"trombone", "care", "technician", "Dizzy"},
		{"flute", "five-note-walk", "", "Dizzy"},
	} {
		got := strings.Join(lay(t, c.instrument, exercise.New(c.kind, nil)).Cautions, "\n")
		if c.kind != "air-off" {
			assert.NotContains(t, got, "alloon", "%s on %s", c.kind, c.instrument)
		}
		assert.Contains(t, got, c.says, "%s on %s", c.kind, c.instrument)
		assert.NotContains(t, got, c.not, "%s on %s", c.kind, c.instrument)
	}
}

func TestABalloonHasItsOwnCaution(t *testing.T) {
	balloon := exercise.New("air-off", set{"with": "balloon"})
	assert.Contains(t, strings.Join(lay(t, "flute", balloon).Cautions, "\n"), "latex")
}

func TestLaddersClimbFromWhatWorks(t *testing.T) {
	for _, l := range exercise.Ladders() {
		t.Run(l.Key, func(t *testing.T) {
			found := false
			for _, i := range allWays() {
				if !l.Suits(i) {
					continue
				}
				found = true
				rungs := l.Rungs(i)
				require.GreaterOrEqual(t, len(rungs), 3, i.Key)
				for _, r := range rungs {
					assert.NotEmpty(t, r.Text)
					assert.Len(t, r.Beats, len(r.Notes))
					for _, m := range r.Notes {
						assert.True(t, i.Beginner.Contains(m), "%s: %d", i.Key, m)
						_, ok := i.Fingering(m, exercise.StandardConventions().Hands(0))
						assert.True(t, ok, "%s: %d has a fingering", i.Key, m)
					}
				}
			}
			assert.True(t, found, "some instrument has a use for it")
		})
	}
	_, ok := exercise.LadderOf("no-such")
	assert.False(t, ok)
}
