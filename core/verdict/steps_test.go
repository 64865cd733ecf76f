package verdict_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/measure"
	"earlychorus/core/meter"
	"earlychorus/core/music"
	"earlychorus/core/say"
	"earlychorus/core/scores"
	"earlychorus/core/verdict"
)

// Measures of a whole step, or of two notes together, each with one rule alone and
// lengths, levels and pitches worked out by hand.

// only leaves one rule of a case.
func only(c verdict.Case, key scores.MeasureKey, limit float64) verdict.Case {
	c.Score.Rules = []scores.Rule{{Measure: key, Limit: limit}}
	return c
}

// theReading is the one measure a rule took of a case.
func theReading(t require.TestingT, c verdict.Case) say.Spoken {
	var judged []say.Spoken
	for _, m := range decided(c).Measures {
		if m.Judged {
			judged = append(judged, m)
		}
	}
	require.Len(t, judged, 1)
	return judged[0]
}

// run is a chromatic loop on the clarinet whose n-th note lasts as many times its
// written length as given, over and over.
func run(t require.TestingT, lasts func(n int) float64) verdict.Case {
	c := perfect(t, "chromatic-loop", "clarinet", 3, map[string]any{"loops": 1})
	at := c.Analysis.Notes[0].Onset
	for n := range c.Analysis.Notes {
		note := &c.Analysis.Notes[n]
		length := (note.Release - note.Onset) * music.Seconds(lasts(n))
		note.Onset, note.Release = at, at+length
		at += length
	}
	return c
}

// A run in which every note lasts the same is even and keeps its tempo, at whatever
// pace: how fast is another measure's matter.
func TestAnEvenRunIsEvenAtAnyPace(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pace := rapid.Float64Range(0.5, 2).Draw(t, "pace")
		c := run(t, func(int) float64 { return pace })
		assert.InDelta(t, 0, theReading(t, only(c, measure.TempoDrift.Key, 5)).Value, 1e-6)
		assert.InDelta(t, 0, theReading(t, only(c, measure.Evenness.Key, 0.12)).Value, 1e-6)
	})
}

// Long and short by turns, a tenth each way, spread by a tenth and keep the tempo.
func TestLongAndShortByTurnsAreUnevenAndInTempo(t *testing.T) {
	c := run(t, func(n int) float64 { return []float64{1.1, 0.9}[n%2] })
	uneven := theReading(t, only(c, measure.Evenness.Key, 0.05))
	assert.InDelta(t, 0.1, uneven.Value, 0.005)
	assert.False(t, uneven.Within)
	assert.Equal(t, "lengths spread by 10 % when the left little finger began", uneven.Text)
	assert.True(t, theReading(t, only(c, measure.TempoDrift.Key, 5)).Within)
}

// Notes that grow shorter by the same amount every time speed up by the sum of it.
func TestARunThatHurriesSpeedsUp(t *testing.T) {
	count := float64(len(perfect(t, "chromatic-loop", "clarinet", 3, map[string]any{"loops": 1}).Analysis.Notes))
	shrinking := func(by float64) func(int) float64 {
		return func(n int) float64 { return 1 - by*float64(n)/(count-1) }
	}
	fast := theReading(t, only(run(t, shrinking(0.1)), measure.TempoDrift.Key, 5))
	assert.InDelta(t, 10, fast.Value, 1.2)
	assert.Contains(t, fast.Text, "speeds up by")
	assert.False(t, fast.Within)
	slow := theReading(t, only(run(t, shrinking(-0.1)), measure.TempoDrift.Key, 5))
	assert.InDelta(t, -10, slow.Value, 1.2)
	assert.Contains(t, slow.Text, "slows down by")
	assert.Equal(t, "keeps its tempo", theReading(t, only(run(t, shrinking(0)), measure.TempoDrift.Key, 5)).Text)
}

// Three notes have no tempo of their own yet.
func TestTooFewNotesHaveNoTempo(t *testing.T) {
	c := perfect(t, exercise.KindLongToneCounted, "clarinet", 2, map[string]any{"notes": []int{0, 2, 4}})
	for _, key := range []scores.MeasureKey{measure.TempoDrift.Key, measure.Evenness.Key} {
		v := decided(only(c, key, 1))
		for _, m := range v.Measures {
			assert.False(t, m.Judged, key)
		}
		assert.Equal(t, verdict.Clean, v.Result)
	}
}

// swell is one whose five stretches lie at the levels given: soft, then growing
// from the first to the third, and back.
func swell(t *testing.T, levels [3]music.Decibels) verdict.Case {
	c := perfect(t, "swell", "trumpet", 3, nil)
	n := c.Analysis.Notes
	require.Len(t, n, 5)
	n[0].Level, n[2].Level, n[4].Level = levels[0], levels[1], levels[2]
	n[1].LevelFrom, n[1].LevelTo = levels[0], levels[1]
	n[3].LevelFrom, n[3].LevelTo = levels[1], levels[2]
	return c
}

func TestASwellIsMeasuredFromItsEndsToItsMiddle(t *testing.T) {
	m := theReading(t, only(swell(t, [3]music.Decibels{-32, -18, -30}), measure.SwellRange.Key, 8))
	assert.InDelta(t, 13, m.Value, 1e-9)
	assert.True(t, m.Within)
	m = theReading(t, only(swell(t, [3]music.Decibels{-24, -20, -24}), measure.SwellRange.Key, 8))
	assert.InDelta(t, 2, m.Excess, 1e-9, "half of what is asked")
	assert.False(
		t,
		theReading(t, only(swell(t, [3]music.Decibels{-18, -30, -18}), measure.SwellRange.Key, 8)).Within,
		"the wrong way round",
	)
}

func TestASwellsShapeIsToldByWhatIsWrongWithIt(t *testing.T) {
	shape := func(levels [3]music.Decibels) say.Spoken {
		return theReading(t, only(swell(t, levels), measure.SwellOrder.Key, 0))
	}
	assert.Equal(t, "grows and fades where it should", shape([3]music.Decibels{-32, -18, -30}).Text)
	upOnly := shape([3]music.Decibels{-32, -18, -18})
	assert.Equal(t, "does not end softer", upOnly.Text)
	assert.InDelta(t, 2, upOnly.Value, 0, "it does not fade, and does not end softer")
	assert.InDelta(t, 4, shape([3]music.Decibels{-18, -30, -18}).Value, 0)
}

// Pitch that goes with the loudness is the middle against the mean of the ends,
// wherever the whole lies.
func TestPitchWithLoudnessIsAgainstTheEnds(t *testing.T) {
	for _, c := range []struct {
		at   [3]music.Cents
		want float64
		says string
	}{
		{[3]music.Cents{-10, 8, -6}, 16, "rises 16 cents when loud"},
		{[3]music.Cents{30, 30, 30}, 0, "stays where it is"},
		{[3]music.Cents{4, -20, 0}, -22, "falls 22 cents when loud"},
	} {
		s := swell(t, [3]music.Decibels{-32, -18, -30})
		n := s.Analysis.Notes
		n[0].Centre, n[2].Centre, n[4].Centre = c.at[0], c.at[1], c.at[2]
		m := theReading(t, only(s, measure.PitchShift.Key, 15))
		assert.InDelta(t, c.want, m.Value, 1e-9)
		assert.Equal(t, c.says, m.Text)
		assert.Equal(t, c.want == 0, m.Within)
	}
}

// A swell that broke off has no shape: the note that did not speak tells of it.
func TestABrokenSwellHasNoShape(t *testing.T) {
	s := swell(t, [3]music.Decibels{-32, -18, -30})
	s.Analysis.Notes[3].Played = false
	for _, key := range []scores.MeasureKey{measure.SwellRange.Key, measure.SwellOrder.Key, measure.PitchShift.Key} {
		for _, m := range decided(only(s, key, 8)).Measures {
			assert.False(t, m.Judged, key)
		}
	}
	assert.Equal(t, measure.CauseNoResponse, decided(only(s, measure.Speaks.Key, 0)).Deciding.Cause)
}

// A loudness that cannot be relied on, as under a device's own gain, judges nobody.
func TestALoudnessThatCannotBeReliedOnJudgesNobody(t *testing.T) {
	s := swell(t, [3]music.Decibels{-20, -20, -20})
	for n := range s.Analysis.Notes {
		s.Analysis.Notes[n].Distrust.Level = ear.Riding
	}
	assert.Equal(t, verdict.CantTell, decided(only(s, measure.SwellRange.Key, 8)).Result)
}

// Two buzzes a fourth apart are five semitones, 500 cents: here by 3 to 4, which is
// 498 and nearly, and by 2 to 3, a fifth, which is 702.
func TestHighLiesAboveLow(t *testing.T) {
	apart := func(low, high music.Hertz) say.Spoken {
		c := perfect(t, "high-low-buzz", "trombone", 2, nil)
		lowest := c.Score.Targets()[0].Target
		for _, s := range c.Score.Targets() {
			lowest = min(lowest, s.Target)
		}
		for n, s := range c.Score.Targets() {
			c.Analysis.Notes[n].F0 = high
			if s.Target == lowest {
				c.Analysis.Notes[n].F0 = low
			}
		}
		return theReading(t, only(c, measure.HighAbove.Key, 500))
	}
	assert.InDelta(t, 498.04, apart(180, 240).Value, 0.01)
	assert.False(t, apart(180, 240).Within)
	assert.InDelta(t, 701.96, apart(160, 240).Value, 0.01)
	assert.True(t, apart(160, 240).Within)
	assert.Equal(t, "the low one is higher", apart(240, 180).Text)
}

// What strays from itself is the larger of its waver and of half its way.
func TestABuzzIsMeasuredAgainstItself(t *testing.T) {
	buzz := func(waver music.Cents, drift float64) say.Spoken {
		c := perfect(t, "buzz-at-once", "trumpet", 2, nil)
		c.Analysis.Notes = append([]ear.Note(nil), c.Analysis.Notes...)
		for n := range c.Analysis.Notes {
			c.Analysis.Notes[n].Centre = 400 // a buzz has no right note
			c.Analysis.Notes[n].Steadiness, c.Analysis.Notes[n].Drift, c.Analysis.Notes[n].Sounding = waver, drift, 2
		}
		for _, m := range decided(only(c, measure.OwnCentre.Key, 60)).Measures {
			if m.Judged {
				return m
			}
		}
		t.Fatal("nothing was judged")
		return say.Spoken{}
	}
	assert.InDelta(t, 20, buzz(20, 10).Value, 1e-9)
	assert.InDelta(t, 70, buzz(20, -70).Value, 1e-9, "70 cents a second over two seconds, half of it each way")
	assert.False(t, buzz(20, -70).Within)
}

// A slide is told by how far it went and how long it was silent.
func TestASlideGoesItsWayWithoutADeadSpot(t *testing.T) {
	slid := func(s ear.Slide) verdict.Case {
		c := perfect(t, "buzz-slide", "trombone", 2, nil)
		return with(c, func(n *ear.Note) { n.Slide = &s })
	}
	m := theReading(t, only(slid(ear.Slide{Travel: 0.8}), measure.Travel.Key, 0.8))
	assert.True(t, m.Within)
	m = theReading(t, only(slid(ear.Slide{Travel: 0.4}), measure.Travel.Key, 0.8))
	assert.InDelta(t, 2, m.Excess, 1e-9)
	assert.Equal(t, "40 % of the way", m.Text)
	m = theReading(t, only(slid(ear.Slide{Travel: 1, DeadSpot: 0.3}), measure.DeadSpot.Key, 0.15))
	assert.InDelta(t, 2, m.Excess, 1e-9)
	assert.Equal(t, measure.CauseSlide, m.Cause)
}

// Pulses are compared with the rate asked for; none at all is another matter.
func TestPulsesAreComparedWithTheRateAskedFor(t *testing.T) {
	pulsed := func(rate float64) say.Spoken {
		c := perfect(t, "air-pulses", "tuba", 2, nil)
		return theReading(
			t,
			only(
				with(c, func(n *ear.Note) { n.Pulse = &ear.Pulse{Rate: rate, Asked: 2} }),
				measure.PulseRate.Key,
				0.15,
			),
		)
	}
	assert.True(t, pulsed(2.2).Within)
	assert.InDelta(t, -0.25, pulsed(1.5).Value, 1e-9)
	assert.False(t, pulsed(1.5).Within)
	assert.Equal(t, "no pulses heard", pulsed(0).Text)
	assert.InDelta(t, 10, pulsed(0).Excess, 0)
}

// A slur that is tongued once is nearly, however it was noticed.
func TestATonguedSlurIsNearly(t *testing.T) {
	slur := func(touch func(c *verdict.Case, n int)) say.Said {
		c := perfect(t, "slur-across-partials", "horn", 3, nil)
		for n, s := range c.Score.Targets() {
			if s.Articulation == scores.Slurred {
				c.Analysis.Notes[n].Start = "legato"
				if touch != nil {
					touch(&c, n)
					touch = nil // the first alone
				}
			}
		}
		return decided(only(c, measure.NoTongue.Key, 0))
	}
	assert.Equal(t, verdict.Clean, slur(nil).Result)
	begun := slur(func(c *verdict.Case, n int) { c.Analysis.Notes[n].Start = ear.ByTongue })
	assert.Equal(t, verdict.Nearly, begun.Result)
	assert.Equal(t, measure.CauseTongue, begun.Deciding.Cause)
	assert.Equal(t, verdict.Nearly, slur(func(c *verdict.Case, n int) {
		c.Analysis.Events = append(c.Analysis.Events, ear.Event{Kind: ear.Tongue, Note: n})
	}).Result)
	twice := slur(func(c *verdict.Case, n int) {
		c.Analysis.Notes[n].Start = "silence"
		c.Analysis.Events = append(c.Analysis.Events, ear.Event{Kind: ear.Tongue, Note: n})
	})
	assert.Equal(t, verdict.NotYet, twice.Result)
}

// The worst round of breathing speaks for all, and says which it was.
func TestTheWorstRoundOfBreathingSpeaks(t *testing.T) {
	breath := func(key scores.MeasureKey, limit float64, airs ...ear.Air) say.Spoken {
		c := perfect(t, exercise.KindLongToneCounted, "flute", 2, map[string]any{"notes": []int{0}, "tempo_bpm": 60})
		c.Analysis.Airs = airs
		return theReading(t, only(c, key, limit))
	}
	good := ear.Air{
		Heard:   true,
		Bursts:  4,
		Wanted:  4,
		Length:  4,
		Asked:   4,
		Unequal: 0.05,
	}
	few, none := good, good
	few.Bursts, few.Unequal = 3, 0.4
	none.Heard, none.Bursts = false, 0
	assert.True(t, breath(measure.AirBursts.Key, 0, good, good).Within)
	m := breath(measure.AirBursts.Key, 0, good, few, good)
	assert.Equal(t, "round 2: 3 bursts", m.Text)
	assert.InDelta(t, 1.5, m.Excess, 1e-9, "one missing is nearly")
	assert.Equal(t, "round 3: no air heard", breath(measure.AirBursts.Key, 0, good, few, none).Text)
	assert.InDelta(t, 2, breath(measure.AirEven.Key, 0.2, good, few).Excess, 1e-9)
	stream := ear.Air{
		Heard:  true,
		Bursts: 3,
		Length: 6,
		Asked:  8,
	}
	assert.Equal(t, "stopped 2 times", breath(measure.AirBursts.Key, 0, stream).Text)
	assert.InDelta(
		t,
		4,
		breath(measure.AirLength.Key, 0.5, stream).Excess,
		1e-9,
		"two beats short where half a beat is given",
	)
}

// A blow nobody heard is worse than any that was only late.
func TestABlowThatWasNotThereIsTheWorst(t *testing.T) {
	c := perfect(t, "air-meter", "trombone", 2, nil)
	c.Blows = []meter.Blow{{Heard: true, Delay: 0.1}, {Heard: true, Delay: 2}, {}}
	m := theReading(t, only(c, measure.MeterDelay.Key, 0.5))
	assert.Equal(t, "blow 3: no air in the meter", m.Text)
	c.Blows = c.Blows[:2]
	m = theReading(t, only(c, measure.MeterDelay.Key, 0.5))
	assert.InDelta(t, 4, m.Excess, 1e-9)
	assert.Equal(t, measure.CauseMeterDelay, m.Cause)
}
