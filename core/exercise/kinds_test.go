package exercise_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
)

// What a step that was kept before there was a parameter meant, it means still.
func TestAKeptStepMeansWhatItMeant(t *testing.T) {
	kept, err := exercise.Kept("breath-pattern", []byte(`{"in":4,"hold":4,"out":8,"how":"bursts"}`))
	require.NoError(t, err)
	assert.Equal(t, 8, burstsIn(t, kept), "one a beat, as it was")
	assert.Equal(t, 8, burstsIn(t, exercise.New("breath-pattern", nil)), "eight in four beats are usual")
	var plan struct{ Step exercise.Step }
	require.NoError(t, json.Unmarshal([]byte(`{"step":{"kind":"breath-pattern","parameters":{"out":8}}}`), &plan))
	assert.Equal(t, 8, burstsIn(t, plan.Step), "in a plan that was kept, too")
	quick := exercise.New("breath-pattern", set{"out": 4, "per_beat": 4})
	assert.Equal(t, 16, burstsIn(t, quick))
}

func burstsIn(t *testing.T, step exercise.Step) int {
	for _, seg := range lay(t, "flute", step).Segments {
		if seg.Phase == scores.Out {
			return seg.Bursts
		}
	}
	return 0
}

func TestArmsAreSaid(t *testing.T) {
	assert.Contains(t, wording(lay(t, "tuba", exercise.New("breath-pattern", set{"arms": "up"}))), "arms up")
	assert.NotContains(t, wording(lay(t, "tuba", exercise.New("breath-pattern", nil))), "arms")
}

// In a canon the leader moves on while the player plays the note before.
func TestACanonOverlaps(t *testing.T) {
	s := lay(t, "trumpet", exercise.New("echo", set{"notes": []int{0, 2, 4}, "how": "canon"}))
	targets := s.Targets()
	require.Len(t, targets, 3)
	assert.Equal(t, []music.MIDI{targets[1].Target, targets[2].Target, 0},
		[]music.MIDI{targets[0].Leader, targets[1].Leader, targets[2].Leader})
	assert.True(t, scores.Follows(targets, 1))
	tones := s.Timeline().Tones
	require.Len(t, tones, 3, "the first alone, then two over the player's")
	assert.InDelta(t, float64(s.TempoBPM.Seconds(targets[0].StartBeat)), float64(tones[1].At), 1e-9)
	assert.Contains(t, s.Notices[0], "headphones")
}

// Each repeat says soft or loud, tongue or breath, taper or stop; the wait of a three-step
// start shrinks to none.
func TestStartsAndEndsSayWhatTheyAsk(t *testing.T) {
	step := exercise.New("starts-and-ends", set{"start": "breath", "end": "stopped", "wait": "three-step"})
	s := lay(t, "oboe", step)
	targets := s.Targets()
	assert.Equal(t, "B♭: soft, with the breath alone; stop it on the beat", targets[0].Text)
	assert.Equal(t, "B♭: loud, with the breath alone; stop it on the beat", targets[1].Text)
	assert.Equal(t, scores.Stopped, targets[0].Ending)
	var waits []music.Beats
	for _, seg := range s.Segments[1:] {
		if seg.Phase == scores.Ready {
			waits = append(waits, seg.Beats)
		}
	}
	assert.Equal(t, []music.Beats{3, 2, 1}, waits)
	assert.Equal(t, scores.Taper, lay(t, "oboe", exercise.New("starts-and-ends", nil)).Targets()[0].Ending)
}

// A minor scale is written in its own key.
func TestAMinorScaleHasItsSignature(t *testing.T) {
	minor := exercise.New("scale", set{"mode": "minor", "way": "up"})
	assert.Equal(t, music.Key(-3), lay(t, "trumpet", minor).KeyFifths)
	assert.Equal(t, "scale of concert B♭ minor, up, 1 beat each", minor.Kind.Says(minor.Values))
}

// Low E, F and F♯ change hands in a run, and the hand that begins alternates from loop to
// loop (common practice).
func TestAClarinetsLowStartAlternates(t *testing.T) {
	p := exercise.Player{Instrument: named(t, "clarinet"), Stage: 3}
	step := exercise.New("chromatic-loop", set{"half": "low", "way": "up", "loops": 2})
	c := exercise.StandardConventions()
	fingers := func(c exercise.Conventions) (out []string) {
		for _, seg := range layFor(t, p, step, c).Targets() {
			if n := seg.Written.MIDI(); n >= 52 && n <= 54 {
				out = append(out, seg.Fingering.Text)
			}
		}
		return out
	}
	assert.Equal(t, []string{
		"T 123 | 123 + E (left)", "T 123 | 123 + F (right)", "T 123 | 123 + F♯ (left)",
		"T 123 | 123 + E (right)", "T 123 | 123 + F (left)", "T 123 | 123 + F♯ (right)",
	}, fingers(c))
	targets := layFor(t, p, step, c).Targets()
	assert.Equal(t, "left", targets[0].Side)
	assert.Equal(t, "right", targets[len(targets)-1].Side)
	require.NoError(t, c.Set("clarinet_low", "right"))
	assert.Equal(t, fingers(c)[0], fingers(c)[3], "always the right")
}

// A saxophone's way tongues every note, a bassoon's slurs from the note that works (common
// practice); the director may have it otherwise.
func TestALadderIsJoinedAsItIsTaught(t *testing.T) {
	second := func(key, ladder string, more set) scores.Articulation {
		given := set{"ladder": ladder}
		for k, v := range more {
			given[k] = v
		}
		return lay(t, key, exercise.New("ladder", given)).Targets()[1].Articulation
	}
	assert.Equal(t, scores.Tongued, second("alto-sax", "sax-low", nil))
	assert.Equal(t, scores.Slurred, second("alto-sax", "sax-low", set{"join": "slurred"}))
	assert.Equal(t, scores.Slurred, second("bassoon", "bassoon-low", nil))
	assert.Equal(t, scores.Tongued, second("bassoon", "bassoon-low", set{"join": "tongued"}))
}

// Every instrument has its own order, the reed is on last and off first, and nothing is
// forced.
func TestTogetherAndAwayAreTheInstruments(t *testing.T) {
	for _, i := range instrument.All() {
		together := layFor(t, exercise.Player{Instrument: i, Stage: 1},
			exercise.New("assembly", nil), exercise.StandardConventions())
		away := layFor(t, exercise.Player{Instrument: i, Stage: 1},
			exercise.New("assembly", set{"way": "away"}), exercise.StandardConventions())
		assert.GreaterOrEqual(t, len(together.Items), 3, i.Key)
		assert.GreaterOrEqual(t, len(away.Items), 3, i.Key)
		assert.Contains(t, away.Items[len(away.Items)-1], "latches", i.Key)
		if i.Family == instrument.Clarinets || i.Family == instrument.Saxophones {
			assert.Contains(t, away.Items[0], "Reed off first", i.Key)
		}
	}
}

func TestCareIsDueAgain(t *testing.T) {
	for n, e := range exercise.Everies() {
		assert.Equal(t, []int{1, 7, 30, 105}[n], e.Days(), e.Name())
	}
	every, ok := exercise.CareStep(exercise.Termly).CareEvery()
	assert.True(t, ok)
	assert.Equal(t, exercise.Termly, every)
	_, ok = counted.CareEvery()
	assert.False(t, ok)
}

// A written note that an instrument has not is said, and the concert notes stand in.
func TestWrittenNotesOutsideTheInstrumentAreSaid(t *testing.T) {
	step := exercise.New("long-tone-counted", set{"notes": []int{0}, "written": []string{"E3"}})
	s := lay(t, "flute", step)
	assert.Equal(t, []string{"B♭4"}, names(s))
	assert.Equal(t, []string{"Flute has no written E3: it plays the concert notes."}, s.Notices)
	_, err := exercise.Parse("long-tone-counted", []byte(`{"written":["H3"]}`))
	assert.ErrorContains(t, err, "E3, F♯4, B♭3")
}

// A leap that is too wide is the widest that fits, never broken.
func TestAWideLeapNarrows(t *testing.T) {
	s := lay(t, "trombone", exercise.New("wide-leap", set{"leap": "two-octaves"}))
	assert.Equal(t, music.MIDI(12), s.Targets()[1].Target-s.Targets()[0].Target)
	assert.Contains(t, s.Notices[0], "leaps an octave")
}

// D♭3, then C3, B2, B♭2 and A2, and again (common practice): the next start follows by
// itself. Trumpet and horn buzz an octave higher.
func TestTheTubesNextStartFollows(t *testing.T) {
	step := exercise.New("tube-buzz-scale", nil)
	var tops []music.MIDI
	for repeat := range 6 {
		p := exercise.Player{Instrument: named(t, "trombone"), Stage: 2, Repeat: repeat}
		s := layFor(t, p, step, exercise.StandardConventions())
		targets := s.Targets()
		require.Len(t, targets, 8)
		assert.Equal(t, music.MIDI(12), targets[0].Target-targets[7].Target, "an octave down")
		tops = append(tops, targets[0].Target)
	}
	assert.Equal(t, []music.MIDI{49, 48, 47, 46, 45, 49}, tops)
	for key, top := range map[string]music.MIDI{"trumpet": 61, "horn": 61, "euphonium": 49, "tuba": 49} {
		assert.Equal(t, top, lay(t, key, step).Targets()[0].Target, key)
	}
}
