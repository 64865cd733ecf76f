package exercise_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
)

func score(t *testing.T, key string, p exercise.LongToneCounted) exercise.Score {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	s, err := p.Score(i, exercise.StandardConventions(), 2)
	require.NoError(t, err)
	return s
}

func TestSentenceSaysTheStep(t *testing.T) {
	assert.Equal(t, "Long tone, counted: concert B♭ then F, 8 beats each at 60, 8 beats rest between",
		exercise.DefaultLongToneCounted().Sentence())
	one := exercise.LongToneCounted{Notes: []exercise.Degree{0}, Beats: 4, RestBeats: 4, TempoBPM: 80}
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
		targets := score(t, key, exercise.DefaultLongToneCounted()).Targets()
		require.Len(t, targets, 2, key)
		assert.Equal(t, want[0], targets[0].WrittenName, key)
		assert.Equal(t, want[1], targets[1].WrittenName, key)
		assert.Equal(t, want[2], targets[1].Fingering.Text, key)
	}
}

func TestTimingOfADefaultStep(t *testing.T) {
	s := score(t, "trombone", exercise.DefaultLongToneCounted())
	targets := s.Targets()
	// Four clicks, eight beats, eight rest, eight beats, one more: 29 beats at 60.
	assert.Equal(t, music.Beats(4), targets[0].StartBeat)
	assert.Equal(t, music.Beats(20), targets[1].StartBeat)
	assert.InDelta(t, 29, float64(s.Seconds()), 1e-9)
	assert.InDelta(t, 16, float64(s.Load.SoundSeconds), 1e-9)
}

func TestSegmentsFollowWithoutHoles(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := exercise.LongToneCounted{
			Notes: rapid.SliceOfN(rapid.Custom(func(t *rapid.T) exercise.Degree {
				return exercise.Degree(rapid.IntRange(-5, 12).Draw(t, "degree"))
			}), 1, 6).Draw(t, "notes"),
			Beats:     music.Beats(rapid.IntRange(2, 8).Draw(t, "beats")),
			RestBeats: music.Beats(rapid.IntRange(2, 16).Draw(t, "rest")),
			TempoBPM:  music.Tempo(rapid.IntRange(40, 160).Draw(t, "tempo")),
		}
		i := rapid.SampledFrom(instrument.All()).Draw(t, "instrument")
		s, err := p.Score(i, exercise.StandardConventions(), 2)
		require.NoError(t, err)
		var at music.Beats
		for _, seg := range s.Segments {
			assert.Equal(t, at, seg.StartBeat)
			at += seg.Beats
			if seg.Phase == exercise.Play {
				assert.True(t, i.Beginner.Contains(seg.Target), "%s %d", i.Key, seg.Target)
				assert.Equal(t, i.Written(seg.Target), seg.Written.MIDI())
			}
		}
		assert.Len(t, s.Targets(), len(p.Notes))
	})
}

func TestSubstitutionIsSaid(t *testing.T) {
	low := exercise.LongToneCounted{Notes: []exercise.Degree{12}, Beats: 4, RestBeats: 4, TempoBPM: 60}
	// An octave above home is B♭2 on the tuba, inside its range; on the
	// soprano recorder G6 (91) is inside too; below home the flute has F4.
	assert.Empty(t, score(t, "tuba", low).Notices)
	assert.NotEmpty(t, score(t, "soprano-recorder", low).Notices, "its home is not B♭")

	under := exercise.LongToneCounted{Notes: []exercise.Degree{12}, Beats: 4, RestBeats: 4, TempoBPM: 60}
	horn := score(t, "horn", under)
	assert.Empty(t, horn.Notices, "B♭4 (70) is hard but in range")
	assert.True(t, horn.Targets()[0].Hard)
}

func TestBadParametersNameTheField(t *testing.T) {
	good := exercise.DefaultLongToneCounted()
	for field, bad := range map[string]func(*exercise.LongToneCounted){
		"notes":      func(p *exercise.LongToneCounted) { p.Notes = nil },
		"beats":      func(p *exercise.LongToneCounted) { p.Beats = 0.5 },
		"rest_beats": func(p *exercise.LongToneCounted) { p.RestBeats = 40 },
		"tempo_bpm":  func(p *exercise.LongToneCounted) { p.TempoBPM = 300 },
	} {
		p := good
		bad(&p)
		var perr exercise.ParameterError
		require.ErrorAs(t, p.Check(), &perr)
		assert.Equal(t, field, perr.Field)
		raw, _ := json.Marshal(p)
		_, err := exercise.Parse(exercise.KindLongToneCounted, raw)
		assert.Error(t, err)
	}
	tooLong := good
	tooLong.Beats, tooLong.TempoBPM = 16, 40
	assert.ErrorContains(t, tooLong.Check(), "24 s")
}

func TestStagesTighten(t *testing.T) {
	for s := exercise.Stage(1); s < 4; s++ {
		assert.Greater(t, s.Limits().Centre, (s + 1).Limits().Centre)
		assert.Greater(t, s.Limits().Waver, (s + 1).Limits().Waver)
	}
}
