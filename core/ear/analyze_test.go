package ear_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/core/audio"
	"earlychorus/core/ear"
	"earlychorus/core/exercise"
	"earlychorus/core/instrument"
	"earlychorus/core/music"
	"earlychorus/core/scores"
	"earlychorus/core/synth"
)

// step is short, so that tests are: one note of four beats at 120.
func step(t *testing.T, key string, notes ...exercise.Degree) (instrument.Instrument, scores.Score) {
	t.Helper()
	i, err := instrument.Get(key)
	require.NoError(t, err)
	p := exercise.New(
		exercise.KindLongToneCounted,
		map[string]any{"notes": notes, "beats": 4, "rest_beats": 3, "tempo_bpm": 120},
	)
	s, err := p.Score(exercise.Player{Instrument: i, Stage: 2}, exercise.StandardConventions())
	require.NoError(t, err)
	return i, s
}

func analyze(t *testing.T, sound audio.Mono, i instrument.Instrument, s scores.Score) ear.Analysis {
	t.Helper()
	a, err := ear.Analyze(context.Background(), sound, ear.Question{Instrument: &i, Score: &s})
	require.NoError(t, err)
	return a
}

func kinds(a ear.Analysis) (out []ear.EventKind) {
	for _, e := range a.Events {
		out = append(out, e.Kind)
	}
	return out
}

// A known player, and what must be measured of it.
func TestMeasuresOfASteadyFlatPlayer(t *testing.T) {
	for _, key := range []string{
		"flute", "clarinet", "bassoon", "alto-sax", "trumpet", "trombone", "tuba", "soprano-recorder",
	} {
		i, s := step(t, key, 0, 7)
		sound, truth := synth.Player{
			Instrument: i,
			Offset:     -18,
			Late:       0.1,
			Breath:     -40,
			Room:       -70,
		}.Play(s, 48000)
		a := analyze(t, sound, i, s)
		require.Len(t, a.Notes, 2, key)
		assert.Empty(t, a.Events, key)
		assert.Empty(t, a.Recording.Faults, key)
		for n, note := range a.Notes {
			assert.True(t, note.Trusted, key)
			assert.InDelta(t, -18, float64(note.Centre), 0.5, key)
			assert.Less(t, float64(note.Steadiness), 1., key)
			assert.InDelta(t, 0, note.Drift, 0.5, key)
			assert.InDelta(t, float64(truth[n].Onset), float64(note.Onset), 0.02, key)
			assert.InDelta(t, float64(truth[n].Release), float64(note.Release), 0.03, key)
			assert.InDelta(t, 0.1, float64(note.Response), 0.02, key)
			assert.InDelta(t, -20, float64(note.Level), 0.3, key)
			assert.Greater(t, note.HeldRatio, 0.9, key)
		}
	}
}

func TestDriftAndWaver(t *testing.T) {
	i, s := step(t, "clarinet", 0)
	sound, _ := synth.Player{Instrument: i, Drift: 10}.Play(s, 48000)
	assert.InDelta(t, 10, analyze(t, sound, i, s).Notes[0].Drift, 0.3)

	sound, _ = synth.Player{Instrument: i, WaverDepth: 20, WaverHz: 3}.Play(s, 48000)
	n := analyze(t, sound, i, s).Notes[0]
	assert.InDelta(t, 17, float64(n.Steadiness), 4, "near the depth of the waver")
	assert.InDelta(t, 0, float64(n.Centre), 2)
}

func TestGapIsFoundWithItsLength(t *testing.T) {
	for _, key := range []string{"tuba", "clarinet", "flute"} {
		i, s := step(t, key, 0)
		for _, length := range []music.Seconds{0.08, 0.3} {
			sound, truth := synth.Player{
				Instrument: i,
				Offset:     -18,
				Room:       -70,
				Gaps:       []synth.Gap{{At: 0.8, Length: length}},
			}.Play(s, 48000)
			a := analyze(t, sound, i, s)
			require.Equal(t, []ear.EventKind{ear.Gap}, kinds(a), key)
			assert.InDelta(t, float64(length), float64(a.Events[0].Duration), 0.03, key)
			assert.InDelta(t, float64(truth[0].Onset+0.8), float64(a.Events[0].At), 0.03, key)
			assert.InDelta(t, -18, float64(a.Notes[0].Centre), 1, key)
		}
	}
}

func TestCracksGoToTheInstrumentsOwnPartial(t *testing.T) {
	for key, want := range map[string]struct{ interval, partial int }{
		"clarinet": {19, 3}, // the register's twelfth
		"alto-sax": {12, 2}, // the octave
		"trumpet":  {7, 3},  // open B♭3 to F4
		"trombone": {7, 3},
	} {
		i, s := step(t, key, 0)
		assert.Equal(t, want.interval, synth.NextPartial(i, i.Home()), key)
		sound, _ := synth.Player{
			Instrument: i,
			Room:       -70,
			Cracks:     []synth.Crack{{At: 0.9, Length: 0.2, Semitones: want.interval}},
		}.Play(
			s,
			48000,
		)
		a := analyze(t, sound, i, s)
		require.Equal(t, []ear.EventKind{ear.Break}, kinds(a), key)
		e := a.Events[0]
		assert.Equal(t, want.interval, e.Interval, key)
		assert.Equal(t, want.partial, e.Partial, key)
		assert.True(t, e.Returned, key)
		assert.InDelta(t, 0.2, float64(e.Duration), 0.04, key)
	}
}

func TestUndertoneBeforeTheNote(t *testing.T) {
	i, s := step(t, "alto-sax", 12)
	sound, _ := synth.Player{Instrument: i, Cracks: []synth.Crack{{At: 0, Length: 0.2, Semitones: -12}}}.Play(s, 48000)
	a := analyze(t, sound, i, s)
	require.Equal(t, []ear.EventKind{ear.Undertone}, kinds(a))
	assert.Equal(t, -12, a.Events[0].Interval)
}

func TestWrongNoteAndSilence(t *testing.T) {
	i, s := step(t, "trumpet", 0, 7)
	sound, _ := synth.Player{Instrument: i, Shift: 7}.Play(s, 48000)
	n := analyze(t, sound, i, s).Notes[0]
	assert.True(t, n.WrongNote)
	assert.Equal(t, i.Home()+7, n.MIDI)

	a := analyze(t, audio.Mono{Rate: 48000, Samples: make([]float64, int(s.Seconds())*48000)}, i, s)
	assert.False(t, a.Notes[0].Played)
	assert.Contains(t, a.Recording.Faults, ear.NoSound)
}

func TestRecordingFaults(t *testing.T) {
	i, s := step(t, "trumpet", 0)
	loud, _ := synth.Player{Instrument: i, Level: -1}.Play(s, 48000)
	for n, x := range loud.Samples {
		loud.Samples[n] = max(-1, min(1, 2*x))
	}
	assert.Contains(t, analyze(t, loud, i, s).Recording.Faults, ear.Clipped)

	far, _ := synth.Player{Instrument: i, Level: -58, Room: -80}.Play(s, 48000)
	assert.Contains(t, analyze(t, far, i, s).Recording.Faults, ear.TooQuiet)

	short, _ := synth.Player{Instrument: i}.Play(s, 48000)
	short.Samples = short.Samples[:2*48000]
	assert.Contains(t, analyze(t, short, i, s).Recording.Faults, ear.CutShort)
}

func TestFileWithoutAClickIsLinedUp(t *testing.T) {
	i, s := step(t, "horn", 0, 7)
	sound, _ := synth.Player{Instrument: i, Room: -70}.Play(s, 48000)
	sound.Samples = sound.Samples[48000:] // the player cut away one second
	q := ear.Question{Instrument: &i, Score: &s, Alignment: ear.Alignment{FirstNote: true}}
	a, err := ear.Analyze(context.Background(), sound, q)
	require.NoError(t, err)
	assert.InDelta(t, -1, float64(a.Start), 0.03)
	assert.True(t, a.Notes[1].Played)
	assert.False(t, a.Notes[1].WrongNote)
}

func TestWithoutScoreNotesAreStillFound(t *testing.T) {
	i, s := step(t, "flute", 0, 7)
	sound, _ := synth.Player{Instrument: i, Offset: 12, Gaps: []synth.Gap{{At: 0.7, Length: 0.2}}}.Play(s, 48000)
	a, err := ear.Analyze(context.Background(), sound, ear.Question{})
	require.NoError(t, err)
	require.Len(t, a.Notes, 2)
	assert.Equal(t, music.MIDI(70), a.Notes[0].MIDI)
	assert.InDelta(t, 12, float64(a.Notes[1].Centre), 0.5)
	assert.Equal(t, []ear.EventKind{ear.Gap, ear.Gap}, kinds(a))
}
