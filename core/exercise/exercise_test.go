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

// counted is the step most tests are about: concert B♭ then F.
var counted = exercise.New(exercise.KindLongToneCounted, nil)

type set = map[string]any

func named(t *testing.T, key string) instrument.Instrument {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	return i
}

// lay works a step out for an instrument at stage 2, in a class that follows the
// standard schools.
func lay(t *testing.T, key string, step exercise.Step) scores.Score {
	t.Helper()
	return layFor(t, exercise.Player{Instrument: named(t, key), Stage: 2}, step, exercise.StandardConventions())
}

func layFor(t *testing.T, p exercise.Player, step exercise.Step, c exercise.Conventions) scores.Score {
	t.Helper()
	s, err := step.Score(p, c)
	require.NoError(t, err)
	return s
}

// names lists the written names of a score's notes.
func names(s scores.Score) (out []string) {
	for _, seg := range s.Targets() {
		out = append(out, seg.WrittenName)
	}
	return out
}

func TestSentenceSaysTheStep(t *testing.T) {
	assert.Equal(
		t,
		"Long tone, counted: concert B♭ then F, 8 beats each at 60, 8 beats rest between",
		counted.Sentence(),
	)
	one := exercise.New(exercise.KindLongToneCounted, set{"notes": []int{0}, "beats": 4, "tempo_bpm": 80})
	assert.Equal(t, "Long tone, counted: concert B♭, 4 beats each at 80", one.Sentence())
}

// B♭ then F as every instrument reads them (transpositions from memory).
func TestTheWholeBandReadsOneStep(t *testing.T) {
	for key, want := range map[string][3]string{ // written, written, fingering of the second
		"flute":        {"B♭4", "F5", "T 123 | 1 E♭"},
		"clarinet":     {"C4", "G4", "open"},
		"alto-sax":     {"G4", "D5", "Oct 123 | 123"},
		"horn":         {"F4", "C5", "open"},
		"trombone":     {"B♭2", "F3", "position 1"},
		"euphonium-tc": {"C4", "G4", "open"},
		"tuba":         {"B♭1", "F2", "open"},
		// Recorders start from their own home note.
		"soprano-recorder": {"G4", "D5", "2"},
		"alto-recorder":    {"C5", "G5", "2"},
	} {
		targets := lay(t, key, counted).Targets()
		require.Len(t, targets, 2, key)
		assert.Equal(t, want[0], targets[0].WrittenName, key)
		assert.Equal(t, want[1], targets[1].WrittenName, key)
		assert.Equal(t, want[2], targets[1].Fingering.Text, key)
	}
}

func TestTimingOfADefaultStep(t *testing.T) {
	s := lay(t, "trombone", counted)
	targets := s.Targets()
	// Four clicks, eight beats, eight rest, eight beats, one more: 29 beats at 60.
	assert.Equal(t, music.Beats(4), targets[0].StartBeat)
	assert.Equal(t, music.Beats(20), targets[1].StartBeat)
	assert.InDelta(t, 29, float64(s.Seconds()), 1e-9)
	assert.InDelta(t, 16, float64(s.Load.SoundSeconds), 1e-9)
	assert.InDelta(t, 16, float64(s.Load.LipSeconds), 1e-9)
	assert.InDelta(t, 13, float64(s.Load.RestSeconds), 1e-9)
}

func TestTheTimelineClicksInTheCountInOnly(t *testing.T) {
	line := lay(t, "flute", counted).Timeline()
	assert.InDelta(t, 29, float64(line.Total), 1e-9)
	require.Len(t, line.Clicks, 29)
	for n, c := range line.Clicks {
		assert.Equal(t, n < 4, c.Audible, n)
	}
	assert.True(t, line.Clicks[4].Accent, "the first beat of the note")
}

func TestSubstitutionIsSaid(t *testing.T) {
	octave := exercise.New(exercise.KindLongToneCounted, set{"notes": []int{12}, "beats": 4})
	// An octave above home is B♭2 on the tuba, inside its range at stage 2.
	assert.Empty(t, lay(t, "tuba", octave).Notices)
	assert.NotEmpty(t, lay(t, "soprano-recorder", octave).Notices, "its home is not B♭")
	horn := lay(t, "horn", octave)
	assert.Empty(t, horn.Notices, "B♭4 is hard but in range")
	assert.True(t, horn.Targets()[0].Hard)

	// In the first weeks the octave is out of reach, and so is the fourth below,
	// which then lies an octave higher.
	first := layFor(
		t,
		exercise.Player{Instrument: named(t, "clarinet"), Stage: 1},
		octave,
		exercise.StandardConventions(),
	)
	assert.Equal(t, []string{"C4"}, names(first))
	assert.Equal(
		t,
		[]string{
			"B♭ clarinet plays concert B♭ an octave lower: the note itself lies outside what this stage asks for.",
		},
		first.Notices,
	)
	below := exercise.New(exercise.KindLongToneCounted, set{"notes": []int{-5}})
	first = layFor(
		t,
		exercise.Player{Instrument: named(t, "clarinet"), Stage: 1},
		below,
		exercise.StandardConventions(),
	)
	assert.Equal(t, []string{"G4"}, names(first))
}

func TestPatternsUseKnownNotesOnly(t *testing.T) {
	i := named(t, "trumpet")
	knows := exercise.Player{Instrument: i, Stage: 2, Known: []music.MIDI{58, 60, 62}}
	s := layFor(t, knows, exercise.New("five-note-walk", set{"way": "up"}), exercise.StandardConventions())
	assert.Equal(t, []string{"C4", "D4", "E4"}, names(s))
	assert.Contains(t, s.Notices[0], "turns round at the last note it reaches")
	assert.Contains(t, s.Notices[0], "the notes known so far")
	both := layFor(t, knows, exercise.New("five-note-walk", nil), exercise.StandardConventions())
	assert.Equal(t, []string{"C4", "D4", "E4", "D4", "C4"}, names(both), "the same pattern, shorter")
}

func TestBadParametersNameTheField(t *testing.T) {
	for field, bad := range map[string]any{
		"notes": []int{}, "beats": 2.5, "rest_beats": 40, "tempo_bpm": 300, "colour": "red",
	} {
		raw, err := json.Marshal(set{field: bad})
		require.NoError(t, err)
		_, err = exercise.Parse(exercise.KindLongToneCounted, raw)
		var said exercise.ParameterError
		require.ErrorAs(t, err, &said)
		assert.Equal(t, field, said.Field)
		assert.NotEmpty(t, said.Remedy)
	}
	_, err := exercise.Parse(exercise.KindLongToneCounted, []byte(`{"beats":16,"tempo_bpm":40}`))
	assert.EqualError(
		t,
		err,
		"beats: one breath would last 24 s; keep it within 16 s: ask for less at a time, or go faster",
	)
	_, err = exercise.Parse(exercise.KindLongToneCounted, []byte(`[`))
	assert.ErrorContains(t, err, "send an object")
	_, err = exercise.Parse("breath-pattern", []byte(`{"hold":8,"tempo_bpm":40}`))
	assert.ErrorContains(t, err, "hold it for 8 s at most")
	_, err = exercise.Parse("no-such-kind", nil)
	assert.ErrorContains(t, err, "the kinds are set-up, assembly")
}

func TestParametersSurviveTheirJSON(t *testing.T) {
	for _, k := range exercise.Catalogue() {
		step := exercise.New(k.Key, nil)
		again, err := exercise.Parse(k.Key, step.Parameters())
		require.NoError(t, err, k.Key)
		assert.Equal(t, step.Values, again.Values, k.Key)
	}
}

func TestStagesTighten(t *testing.T) {
	for s := scores.Stage(1); s < 4; s++ {
		assert.Greater(t, s.Limits().Centre, (s + 1).Limits().Centre)
		assert.Greater(t, s.Limits().Waver, (s + 1).Limits().Waver)
		assert.Greater(t, s.Limits().ChangeTime, (s + 1).Limits().ChangeTime)
		for _, i := range instrument.All() {
			now, later := s.Span(i), (s + 1).Span(i)
			assert.LessOrEqual(t, later.From, now.From, i.Key)
			assert.GreaterOrEqual(t, later.To, now.To, i.Key)
			for _, m := range i.FirstFive {
				assert.True(t, now.Contains(m), "%s knows its first five at stage %d", i.Key, s)
			}
		}
	}
}
