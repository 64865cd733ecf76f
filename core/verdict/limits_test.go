package verdict_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/measure"
	"earlychorus/core/music"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// Here nothing is heard: measures are given, so that the rules can be held at their
// very limits.

// perfect is a score, and an analysis of it in which nothing is amiss.
func perfect(t require.TestingT, kind, key string, stage scores.Stage, set map[string]any) verdict.Case {
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := exercise.New(
		kind,
		set,
	).Score(
		exercise.Player{Instrument: i, Stage: stage},
		exercise.StandardConventions(),
	)
	require.NoError(t, err)
	a := ear.Analysis{Seconds: s.Seconds() + 1}
	for _, target := range s.Targets() {
		from := s.TempoBPM.Seconds(target.StartBeat)
		length := s.TempoBPM.Seconds(target.Beats)
		a.Notes = append(a.Notes, ear.Note{
			Target:     target.Target,
			Phase:      target.Phase,
			MIDI:       target.Target,
			Played:     true,
			Onset:      from,
			Release:    from + length,
			Sounding:   length,
			HeldRatio:  1,
			Decay:      0.3,
			Trusted:    true,
			Start:      ear.ByTongue,
			Confidence: 0.95,
		})
	}
	return verdict.Case{Case: measure.Case{Instrument: i, Score: s, Analysis: a}}
}

// longTone is a home note of eight beats on the trombone at stage 2: ±25 cents,
// ±12 of waver, nine tenths of the beats (from the table of stages).
func longTone(t require.TestingT) verdict.Case {
	return perfect(t, exercise.KindLongToneCounted, "trombone", 2, map[string]any{"notes": []int{0}})
}

// with returns the case with its first note changed.
func with(c verdict.Case, change func(*ear.Note)) verdict.Case {
	c.Analysis.Notes = append([]ear.Note(nil), c.Analysis.Notes...)
	change(&c.Analysis.Notes[0])
	return c
}

func TestNothingAmissIsClean(t *testing.T) {
	v := decided(longTone(t))
	assert.Equal(t, verdict.Clean, v.Result)
	assert.Empty(t, v.Causes)
	assert.Equal(t, 0, v.Deciding.Note)
}

// A limit itself is within; a little over is nearly; half as much again and more is
// not yet.
func TestLimitsAreWhereTheyAreSaidToBe(t *testing.T) {
	for _, c := range []struct {
		name            string
		change          func(n *ear.Note, x float64)
		at, over, worse float64
		cause           measure.Cause
	}{
		{"sharp", func(n *ear.Note, x float64) { n.Centre = music.Cents(x) }, 25, 25.1, 37.6, measure.CauseCentre},
		{"flat", func(n *ear.Note, x float64) { n.Centre = music.Cents(-x) }, 25, 25.1, 37.6, measure.CauseCentre},
		{
			"wavering", func(n *ear.Note, x float64) { n.Steadiness = music.Cents(x) }, 12, 12.1, 18.1,
			measure.CauseSteadiness,
		},
		{
			"short", func(n *ear.Note, x float64) { n.HeldRatio, n.Sounding = x, music.Seconds(8*x) }, 0.9,
			0.895, 0.84, measure.CauseHeld,
		},
	} {
		for _, at := range []struct {
			value float64
			want  verdict.Result
		}{{c.at, verdict.Clean}, {c.over, verdict.Nearly}, {c.worse, verdict.NotYet}} {
			v := decided(with(longTone(t), func(n *ear.Note) { c.change(n, at.value) }))
			assert.Equal(t, at.want, v.Result, "%s: %v", c.name, at.value)
			if at.want != verdict.Clean {
				assert.Equal(t, []measure.Cause{c.cause}, v.Causes, c.name)
				assert.Equal(t, c.cause, v.Deciding.Cause, c.name)
			}
		}
	}
}

// Two kinds of fault, each a little over, are together not yet.
func TestTwoKindsALittleOverAreNotYet(t *testing.T) {
	v := decided(with(longTone(t), func(n *ear.Note) { n.Centre, n.Steadiness = 27, 13 }))
	assert.Equal(t, verdict.NotYet, v.Result)
	assert.Equal(
		t,
		[]measure.Cause{measure.CauseCentre, measure.CauseSteadiness},
		v.Causes,
		"what is mended first comes first",
	)
	assert.Equal(t, measure.CauseCentre, v.Deciding.Cause)
}

// Whatever is wrong already, more of it never makes a take better.
func TestMoreOfAFaultIsNeverBetter(t *testing.T) {
	order := map[verdict.Result]int{verdict.Clean: 0, verdict.Nearly: 1, verdict.NotYet: 2}
	rapid.Check(t, func(t *rapid.T) {
		c := longTone(t)
		base := ear.Note{
			Centre: music.Cents(
				rapid.Float64Range(-60, 60).Draw(t, "centre"),
			),
			Steadiness: music.Cents(rapid.Float64Range(0, 40).Draw(t, "waver")),
			HeldRatio:  rapid.Float64Range(0.4, 1).Draw(t, "held"),
		}
		more := rapid.Float64Range(1, 2).Draw(t, "more")
		apply := func(scale float64, only int) verdict.Result {
			return decided(with(c, func(n *ear.Note) {
				part := func(k int) float64 {
					if k == only {
						return scale
					}
					return 1
				}
				n.Centre, n.Steadiness = base.Centre*music.Cents(part(0)), base.Steadiness*music.Cents(part(1))
				n.HeldRatio = 1 - (1-base.HeldRatio)*part(2)
				n.Sounding = music.Seconds(8 * n.HeldRatio)
			})).Result
		}
		only := rapid.IntRange(0, 2).Draw(t, "which")
		assert.LessOrEqual(t, order[apply(1, only)], order[apply(more, only)])
	})
}

// What is not there at all is not yet, however well the rest goes.
func TestWhatIsNotThereIsNotYet(t *testing.T) {
	nobody := decided(with(longTone(t), func(n *ear.Note) { n.Played = false }))
	assert.Equal(t, verdict.CantTell, nobody.Result, "silence is a matter of the microphone first")
	assert.Equal(t, []measure.Cause{measure.CauseNobody}, nobody.Causes)
	blown := with(longTone(t), func(n *ear.Note) { n.Played = false })
	blown.Analysis.Blown = true
	silent := decided(blown)
	assert.Equal(t, verdict.NotYet, silent.Result)
	assert.Equal(t, measure.CauseNoResponse, silent.Deciding.Cause)
	other := decided(with(longTone(t), func(n *ear.Note) { n.WrongNote, n.MIDI = true, n.Target+7 }))
	assert.Equal(t, verdict.NotYet, other.Result)
	assert.Equal(t, measure.CauseWrongNote, other.Deciding.Cause)
	assert.Contains(t, other.Deciding.Text, "a fifth up")
}

// An event as long as its limit is a fault; a shorter one is nobody's matter; several
// are counted and the longest named.
func TestEventsCountFromTheirLimitOn(t *testing.T) {
	gap := func(lengths ...music.Seconds) say.Said {
		c := longTone(t)
		for n, l := range lengths {
			c.Analysis.Events = append(c.Analysis.Events, ear.Event{
				Kind:     ear.Gap,
				Note:     0,
				At:       music.Seconds(5 + n),
				Duration: l,
			})
		}
		return decided(c)
	}
	assert.Equal(t, verdict.Clean, gap(0.05).Result)
	assert.Equal(t, verdict.Nearly, gap(0.06).Result)
	assert.Equal(t, verdict.NotYet, gap(0.2).Result)
	several := gap(0.1, 0.3, 0.05)
	assert.Contains(t, several.Deciding.Text, "2, the longest 0.30 s")
}

// What cannot be relied on decides nothing, and is said by name.
func TestWhatCannotBeTrustedCannotBeTold(t *testing.T) {
	c := with(longTone(t), func(n *ear.Note) { n.Centre, n.Distrust.Pitch = 80, ear.WithAnother })
	v := decided(c)
	assert.Equal(t, verdict.CantTell, v.Result)
	assert.Equal(t, "B♭2 could not be measured: another player sounds with it.", v.Sentence)
	assert.Equal(t, []measure.Cause{measure.CauseRecording}, v.Causes)
	for fault, says := range map[ear.Fault]string{
		ear.NoSound: "right microphone", ear.CutShort: "ends before the step does", ear.Noisy: "room is too loud",
	} {
		c := longTone(t)
		c.Analysis.Recording.Faults = []ear.Fault{fault}
		v := decided(c)
		assert.Equal(t, verdict.CantTell, v.Result, fault)
		assert.Contains(t, v.Sentence, says, fault)
		assert.Nil(t, v.Deciding, "a fault of the recording is never the player's")
	}
}

// A take that cannot be told has the recording's cause, also where it is known which
// note is in doubt: no section is said to have played it wrong.
func TestATakeThatCannotBeToldBlamesNobody(t *testing.T) {
	unsure := with(longTone(t), func(n *ear.Note) { n.Centre, n.Distrust.Pitch = 80, ear.Unclear })
	v, err := verdict.Decide(unsure)
	require.NoError(t, err)
	require.NotNil(t, v.Deciding)
	assert.Equal(t, measure.CauseRecording, v.Cause())
	clean, err := verdict.Decide(longTone(t))
	require.NoError(t, err)
	assert.Empty(t, clean.Cause())
	flat, err := verdict.Decide(with(longTone(t), func(n *ear.Note) { n.Centre = 80 }))
	require.NoError(t, err)
	assert.Equal(t, measure.CauseCentre, flat.Cause())
	nobody, err := verdict.Decide(with(longTone(t), func(n *ear.Note) { n.Played = false }))
	require.NoError(t, err)
	assert.Equal(t, measure.CauseNobody, nobody.Cause())
}

// Of several notes the one that is farthest out decides, and the others keep their
// own.
func TestTheFarthestNoteDecides(t *testing.T) {
	c := perfect(t, exercise.KindLongToneCounted, "trombone", 2, map[string]any{"notes": []int{0, 7}})
	c.Analysis.Notes[0].Centre, c.Analysis.Notes[1].Centre = 28, -44
	v := decided(c)
	assert.Equal(t, 1, v.Deciding.Note)
	assert.Contains(t, v.Deciding.Text, "44 cents flat")
	good := func(note int) bool {
		v, err := verdict.Decide(c)
		require.NoError(t, err)
		return v.Good(note)
	}
	assert.False(t, good(0) || good(1), "both are outside")
	c.Analysis.Notes[0].Centre = 3
	assert.True(t, good(0))
	assert.False(t, good(1))
}

// Stages tighten: the same take that is clean in the first weeks is not later.
func TestTheSameTakeIsJudgedByItsStage(t *testing.T) {
	want := map[scores.Stage]verdict.Result{1: verdict.Clean, 2: verdict.Clean, 3: verdict.Nearly, 4: verdict.NotYet}
	for stage, result := range want {
		c := perfect(t, exercise.KindLongToneCounted, "trombone", stage, map[string]any{"notes": []int{0}})
		assert.Equal(t, result, decided(with(c, func(n *ear.Note) { n.Centre = 22 })).Result, "stage %d", stage)
	}
}

// What the tube itself does is not the player's: a note that tends sharp may lie as
// much farther that way, by its limit at most, and no farther the other way.
func TestTheTubesOwnTendencyIsAllowedFor(t *testing.T) {
	found := false
	for _, degree := range []int{-5, -3, 0, 2, 4, 5, 7, 9, 11} {
		c := perfect(t, exercise.KindLongToneCounted, "trumpet", 3, map[string]any{"notes": []int{degree}})
		own := float64(c.Instrument.Tendency(c.Score.Targets()[0].Target))
		if own < 8 && own > -8 || c.Score.Targets()[0].Hard {
			continue
		}
		found = true
		limit := float64(c.Score.Limits.Centre)
		along := decided(
			with(
				c,
				func(n *ear.Note) { n.Centre = music.Cents((min(abs(own), limit) + 0.95*limit) * own / abs(own)) },
			),
		)
		assert.Equal(t, verdict.Clean, along.Result, "degree %d tends by %v", degree, own)
		against := decided(
			with(c, func(n *ear.Note) { n.Centre = music.Cents(-limit * own / abs(own) * 1.05) }),
		)
		assert.NotEqual(t, verdict.Clean, against.Result, "degree %d", degree)
	}
	assert.True(t, found, "a trumpet has notes of its own mind")
}

func abs(x float64) float64 {
	if x < 0 {
		return -x
	}
	return x
}
